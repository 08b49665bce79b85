import { Button, Select, Tabs } from 'antd';
import { lazy, type ReactNode, Suspense, useMemo } from 'react';
import { useDesk } from '../desk/desk.ts';
import { type Area, type LensName, LENSES, USUAL } from '../desk/view.ts';
import { ZoomContext } from '../plots/use-zoom.ts';
import type { Zoom } from '../plots/zoom.ts';
import { ConservedLens } from './conserved-lens.tsx';
import { ErrorLens } from './error-lens.tsx';
import { OrderLens } from './order-lens.tsx';
import { PhaseLens } from './phase-lens.tsx';
import { ProfileLens } from './profile-lens.tsx';
import { SlopesLens } from './slopes-lens.tsx';
import { SolutionLens } from './solution-lens.tsx';
import './lenses.css';

// what it computes with is fetched with it
const StabilityLens = lazy(async () => ({ default: (await import('./stability-lens.tsx')).StabilityLens }));

const SHOWN: { readonly [L in LensName]: () => ReactNode } = {
  order: () => <OrderLens over="h" />,
  cost: () => <OrderLens over="evaluations" />,
  solution: () => <SolutionLens />,
  error: () => <ErrorLens />,
  phase: () => <PhaseLens />,
  profile: () => <ProfileLens />,
  conserved: () => <ConservedLens />,
  slopes: () => <SlopesLens />,
  stability: () => (
    <Suspense fallback={null}>
      <StabilityLens />
    </Suspense>
  ),
};

/** The large plot or the one beside it, through any lens; both change places by a button. */
export function LensFrame({ area }: { readonly area: Area }): ReactNode {
  const { view, setView, shape } = useDesk('view', 'setView', 'shape');
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
      ((name !== 'phase' || shape.size > 1) &&
        (name !== 'profile' || shape.hasFamily) &&
        (name !== 'conserved' || shape.hasInvariants)),
  );
  const { zooms } = view;
  const kept = useMemo(
    () => ({
      zoom: zooms[area],
      setZoom: (zoom: Zoom | null) => setView({ zooms: { ...zooms, [area]: zoom } }),
    }),
    [zooms, area, setView],
  );
  const label = LENSES.find(({ name }) => name === own)?.label ?? '';
  return (
    <section className={`lens lens-${area}`} aria-label={label}>
      <div className="lens-head">
        {area === 'large' ? (
          <Tabs
            size="small"
            aria-label="Main plot"
            activeKey={own}
            items={offered.map(({ name, label: text }) => ({ key: name, label: text }))}
            onChange={(name) => {
              const chosen = offered.find((lens) => lens.name === name);
              if (chosen !== undefined) choose(chosen.name);
            }}
          />
        ) : (
          <>
            <Select
              size="small"
              popupMatchSelectWidth={false}
              variant="borderless"
              aria-label="Second plot"
              value={own}
              options={offered.map(({ name, label: text }) => ({ value: name, label: text }))}
              onChange={choose}
            />
            <Button
              type="text"
              size="small"
              title="Swap plots"
              aria-label="Swap plots"
              onClick={() => setView({ large: beside, beside: large })}
            >
              ⇤
            </Button>
          </>
        )}
      </div>
      <ZoomContext value={kept}>{SHOWN[own]()}</ZoomContext>
    </section>
  );
}
