import { parseProblem, type ProblemDocument, type StudyDocument } from '@schritt/core';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { useEntry } from '../api/use-entries.ts';
import { MessagePage } from '../frame/message-page.tsx';
import { ProblemTypeset } from '../statement/problem-statement.tsx';
import { TextDesk } from './text-desk.tsx';

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
    ladder: { intervals: [10, 20, 40, 80, 160] },
  };
}

/** One problem of the library. */
export function ProblemPage(): ReactNode {
  const { id = '' } = useParams();
  const { data, error } = useEntry('problem', id);
  if (error !== undefined) return <MessagePage>This problem cannot be opened: {error.message}.</MessagePage>;
  if (data === undefined) return <MessagePage>Opening the problem …</MessagePage>;
  return (
    <TextDesk kind="problem" entry={data} document={problemDocument} parse={parseProblem} study={studyOf}>
      {(problem) => (
        <>
          <h2 className="label">Problem</h2>
          <ProblemTypeset problem={problem} />
        </>
      )}
    </TextDesk>
  );
}
