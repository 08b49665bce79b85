import type { ProblemDocument, StudyDocument } from '@schritt/core/document';
import { type ParameterValues, type Problem, problemHints } from '@schritt/core/notation';
import { type ReactNode, useState } from 'react';
import { useParams } from 'react-router';
import { useEntry } from '../api/use-entries.ts';
import { LoadingPage } from '../frame/loading-page.tsx';
import { MessagePage } from '../frame/message-page.tsx';
import { ProblemControls } from '../texts/problem-controls.tsx';
import { ProblemView } from '../texts/problem-view.tsx';
import { problemReader } from '../worker/text-reader.ts';
import { TextWorkspace } from '../texts/text-workspace.tsx';

function problemDocument(title: string, text: string): ProblemDocument {
  return { schritt: 1, kind: 'problem', title, text };
}

function studyOf(title: string, text: string): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title,
    problem: { title, text },
    methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)\n' }],
    ladder: { counts: [10, 20, 40, 80, 160] },
  };
}

interface Moved {
  readonly text: string;
  readonly values: ParameterValues;
}

const NOTHING: ParameterValues = {};

/** One problem of the library. */
export function ProblemPage(): ReactNode {
  const { id = '' } = useParams();
  const { data, error } = useEntry('problem', id);
  const [moved, setMoved] = useState<Moved | null>(null);
  // what sliders have set counts for the text it was set for
  const valuesOf = (problem: Problem): ParameterValues =>
    moved?.text === problem.text ? moved.values : NOTHING;
  if (error !== undefined) return <MessagePage title={`This problem cannot be opened: ${error.message}.`} />;
  if (data === undefined) return <LoadingPage />;
  return (
    <TextWorkspace
      kind="problem"
      entry={data}
      document={problemDocument}
      reader={problemReader}
      hintsOf={problemHints}
      study={studyOf}
      beside={(problem, onText) => (
        <ProblemControls
          problem={problem}
          values={valuesOf(problem)}
          onValues={(values) => setMoved({ text: problem.text, values })}
          onText={onText}
        />
      )}
    >
      {(problem) => <ProblemView problem={problem} values={valuesOf(problem)} />}
    </TextWorkspace>
  );
}
