import { derivativesTex, type Problem } from '@schritt/core/notation';
import { primed } from '@schritt/core/text';
import { type ReactNode, useMemo } from 'react';
import { Formula } from '../math/formula.tsx';

/** The derivatives that Taylor methods use, as the program makes them, and where one's own would be. */
export function Derivatives({ problem }: { readonly problem: Problem }): ReactNode {
  const lines = useMemo(() => derivativesTex(problem), [problem]);
  const [first] = problem.unknowns;
  if (lines.length === 0 || first === undefined) return null;
  return (
    <>
      <h2 className="label">Derivatives along the solution</h2>
      <div className="typeset small">
        {lines.map((line) => (
          <Formula key={line} tex={line} />
        ))}
      </div>
      <p className="quiet">
        Taylor methods use these. One worked out by hand can be given in the text, as{' '}
        <code>{primed(first.name, first.order + 1)} = …</code>; it is then used instead and checked against
        the automatic one.
      </p>
    </>
  );
}
