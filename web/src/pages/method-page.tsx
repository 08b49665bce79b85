import type { MethodDocument, StudyDocument } from '@schritt/core/document';
import { methodHints } from '@schritt/core/notation';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { useEntry } from '../api/use-entries.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { LoadingPage } from '../frame/loading-page.tsx';
import { MessagePage } from '../frame/message-page.tsx';
import { useMethodRemarks } from '../editor/use-inspection.ts';
import { methodReader } from '../worker/text-reader.ts';
import { MethodBench } from '../texts/method-bench.tsx';
import { MethodInspection } from '../texts/method-inspection.tsx';
import { TextWorkspace } from '../texts/text-workspace.tsx';

function methodDocument(title: string, text: string): MethodDocument {
  return { schritt: 1, kind: 'method', title, text };
}

function studyOf(title: string, text: string): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: `${title}, a study`,
    problem: { title: 'Probe', text: "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)\n" },
    methods: [{ title, text }],
    ladder: { first: 0.5, factor: 2, rungs: 6 },
  };
}

/** One method of the library. */
export function MethodPage(): ReactNode {
  const { id = '' } = useParams();
  const { data, error } = useEntry('method', id);
  if (error !== undefined) return <MessagePage title={`This method cannot be opened: ${error.message}.`} />;
  if (data === undefined) return <LoadingPage />;
  return (
    <TextWorkspace
      kind="method"
      entry={data}
      document={methodDocument}
      reader={methodReader}
      hintsOf={methodHints}
      useRemarks={useMethodRemarks}
      study={studyOf}
      beside={(method) => (
        <ErrorBoundary what="The convergence tests" of={method.text}>
          <MethodBench text={method.text} />
        </ErrorBoundary>
      )}
    >
      {(method, { title, onText }) => <MethodInspection title={title} method={method} onText={onText} />}
    </TextWorkspace>
  );
}
