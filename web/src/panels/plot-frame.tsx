import { Button, Select, Tabs } from 'antd';
import { lazy, type ReactNode, Suspense, useMemo } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import { type Area, type PlotPanelName, PLOT_PANELS, USUAL } from '../state/view.ts';
import { ZoomContext } from '../plots/use-zoom.ts';
import type { Zoom } from '../plots/zoom.ts';
import { InvariantsPanel } from './invariants-panel.tsx';
import { ErrorPanel } from './error-panel.tsx';
import { OrderPanel } from './order-panel.tsx';
import { PhasePanel } from './phase-panel.tsx';
import { ProfilePanel } from './profile-panel.tsx';
import { DirectionFieldPanel } from './direction-field-panel.tsx';
import { SolutionPanel } from './solution-panel.tsx';
import './panels.css';

// what it computes with is fetched with it
const StabilityPanel = lazy(async () => ({
  default: (await import('./stability-panel.tsx')).StabilityPanel,
}));

const SHOWN: { readonly [L in PlotPanelName]: () => ReactNode } = {
  order: () => <OrderPanel over="h" />,
  cost: () => <OrderPanel over="evaluations" />,
  solution: () => <SolutionPanel />,
  error: () => <ErrorPanel />,
  phase: () => <PhasePanel />,
  profile: () => <ProfilePanel />,
  conserved: () => <InvariantsPanel />,
  slopes: () => <DirectionFieldPanel />,
  stability: () => (
    <Suspense fallback={null}>
      <StabilityPanel />
    </Suspense>
  ),
};

/** The large plot or the one beside it, in any of the panels; both change places by a button. */
export function PlotFrame({ area }: { readonly area: Area }): ReactNode {
  const { setView, shape } = useStudyState('setView', 'shape');
  const large = useStudyValue(({ view }) => view.large ?? USUAL[view.depth].large);
  const beside = useStudyValue(({ view }) => view.beside ?? USUAL[view.depth].beside);
  const zooms = useStudyValue(({ view }) => view.zooms);
  const own = area === 'large' ? large : beside;
  const choose = (name: PlotPanelName): void => {
    if (area === 'large') setView(name === beside ? { large: name, beside: large } : { large: name });
    else setView(name === large ? { large: beside, beside: name } : { beside: name });
  };
  const offered = PLOT_PANELS.filter(
    ({ name }) =>
      name === own ||
      ((name !== 'phase' || shape.size > 1) &&
        (name !== 'profile' || shape.hasFamily) &&
        (name !== 'conserved' || shape.hasInvariants)),
  );
  const kept = useMemo(
    () => ({
      zoom: zooms[area],
      setZoom: (zoom: Zoom | null) => setView({ zooms: { ...zooms, [area]: zoom } }),
    }),
    [zooms, area, setView],
  );
  const label = PLOT_PANELS.find(({ name }) => name === own)?.label ?? '';
  return (
    <section className={`plot-panel plot-panel-${area}`} aria-label={label}>
      <div className="plot-panel-head">
        {area === 'large' ? (
          <Tabs
            size="small"
            aria-label="Main plot"
            activeKey={own}
            items={offered.map(({ name, label: text }) => ({ key: name, label: text }))}
            onChange={(name) => {
              const chosen = offered.find((panel) => panel.name === name);
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
