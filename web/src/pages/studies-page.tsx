import type { StudyDocument } from '@schritt/core/document';
import type { ReactNode } from 'react';
import type { EntryRow } from '../api/client.ts';
import { EntryList } from '../entries/entry-list.tsx';
import { FromText } from '../entries/from-text.tsx';
import { OrderSketch } from '../entries/order-sketch.tsx';
import { EquationPreview } from '../statement/equation-preview.tsx';
import { Mark } from '../plots/mark.tsx';

const BLANK: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'New study',
  problem: { title: 'Problem', text: "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)\n" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)\n' }],
  ladder: { first: 0.5, factor: 2, rungs: 6 },
};

function Preview({ row }: { readonly row: EntryRow }): ReactNode {
  return (
    <>
      <OrderSketch id={row.id} version={row.version} />
      <EquationPreview text={row.excerpt} />
      <span className="preview-methods">
        {row.methods.map((title, i) => (
          <span key={`${i}${title}`}>
            <Mark index={i} />
            {title}
          </span>
        ))}
      </span>
    </>
  );
}

/** All studies. */
export function StudiesPage(): ReactNode {
  return (
    <EntryList
      kind="study"
      heading="Studies"
      empty="No studies yet. A study is a problem, its methods and their step sizes."
      path="/studies"
      blank={BLANK}
      newLabel="New study"
      otherNew={(store) => <FromText onStudy={store} />}
      preview={(row) => <Preview row={row} />}
    />
  );
}
