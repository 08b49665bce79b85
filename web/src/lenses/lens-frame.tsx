import { Select } from 'antd';
import type { ReactNode } from 'react';
import { useDesk } from '../desk/desk.ts';
import { type LensName, LENSES, USUAL } from '../desk/view.ts';
import { ConservedLens } from './conserved-lens.tsx';
import { OrderLens } from './order-lens.tsx';
import { ErrorLens, PhaseLens } from './run-lenses.tsx';
import { SlopesLens } from './slopes-lens.tsx';
import { SolutionLens } from './solution-lens.tsx';

const SHOWN: { readonly [L in LensName]: () => ReactNode } = {
  order: () => <OrderLens />,
  solution: () => <SolutionLens />,
  error: () => <ErrorLens />,
  phase: () => <PhaseLens />,
  conserved: () => <ConservedLens />,
  slopes: () => <SlopesLens />,
};

/** The large picture or the one beside it, through any lens; both change places by a button. */
export function LensFrame({ area }: { readonly area: 'large' | 'beside' }): ReactNode {
  const { view, setView, problem } = useDesk();
  const usual = USUAL[view.depth];
  const [large, beside] = [view.large ?? usual.large, view.beside ?? usual.beside];
  const own = area === 'large' ? large : beside;
  const choose = (name: LensName): void => {
    if (area === 'large') setView(name === beside ? { large: name, beside: large } : { large: name });
    else setView(name === large ? { large: beside, beside: name } : { beside: name });
  };
  const offered = LENSES.filter(
    ({ name }) =>
      name === own ||
      ((name !== 'phase' || (problem?.size ?? 1) > 1) &&
        (name !== 'conserved' || (problem?.conserved.length ?? 0) > 0)),
  );
  const label = LENSES.find(({ name }) => name === own)?.label ?? '';
  return (
    <section className={`lens lens-${area}`} aria-label={label}>
      <div className="lens-head">
        {area === 'large' ? (
          <div className="lens-tabs" role="tablist" aria-label="Large picture">
            {offered.map(({ name, label: text }) => (
              <button
                key={name}
                type="button"
                role="tab"
                aria-selected={name === own}
                className="plain-button lens-tab"
                onClick={() => choose(name)}
              >
                {text}
              </button>
            ))}
          </div>
        ) : (
          <>
            <Select<LensName>
              size="small"
              variant="borderless"
              aria-label="Picture beside"
              value={own}
              options={offered.map(({ name, label: text }) => ({ value: name, label: text }))}
              onChange={choose}
              popupMatchSelectWidth={false}
            />
            <button
              type="button"
              className="plain-button swap"
              title="Make this the large picture"
              aria-label="Make this the large picture"
              onClick={() => setView({ large: beside, beside: large })}
            >
              ⇤
            </button>
          </>
        )}
      </div>
      {SHOWN[own]()}
    </section>
  );
}
