import type { ReactNode } from 'react';
import { EntryList } from '../entries/entry-list.tsx';
import { EquationPreview } from '../statement/equation-preview.tsx';

/** All problems. */
export function ProblemsPage(): ReactNode {
  return (
    <EntryList
      kind="problem"
      heading="Problems"
      empty="No problem yet. A problem is an equation, its initial values and an interval."
      path="/problems"
      blank={{
        schritt: 1,
        kind: 'problem',
        title: 'New problem',
        text: "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)\n",
      }}
      newLabel="New problem"
      preview={(row) => <EquationPreview text={row.excerpt} />}
    />
  );
}
