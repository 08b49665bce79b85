import type { MethodDocument, StudyDocument } from '@schritt/core/document';
import { evaluationsPerStep, isImplicit, methodHints, parseMethod } from '@schritt/core/notation';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { useEntry } from '../api/use-entries.ts';
import { MessagePage } from '../frame/message-page.tsx';
import { MethodTypeset } from '../statement/method-statement.tsx';
import { TextDesk } from '../texts/text-desk.tsx';

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
  if (error !== undefined) return <MessagePage>This method cannot be opened: {error.message}.</MessagePage>;
  if (data === undefined) return <MessagePage>Opening the method …</MessagePage>;
  return (
    <TextDesk
      kind="method"
      entry={data}
      document={methodDocument}
      parse={parseMethod}
      hintsOf={methodHints}
      study={studyOf}
    >
      {(method) => (
        <>
          <h2 className="label">Method</h2>
          <MethodTypeset method={method} />
          <p className="quiet">
            {evaluationsPerStep(method)} evaluation{evaluationsPerStep(method) === 1 ? '' : 's'} of{' '}
            {method.form === 'first order' ? 'f' : 'a'}{' '}
            {isImplicit(method) ? "an iteration of Newton's method" : 'a step'}
          </p>
        </>
      )}
    </TextDesk>
  );
}
