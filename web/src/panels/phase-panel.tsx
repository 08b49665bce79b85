import { Checkbox, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import type { Plot } from '@schritt/plot';
import { RungChoices } from './plot-head.tsx';
import { phasePlot } from './phase-plot.ts';
import { useRunView } from './use-run-view.ts';

/** Two components of every run against one another. */
export function PhasePanel(): ReactNode {
  const { component } = useStudyState('component');
  const switches = useStudyState('hidden', 'toggle');
  const view = useRunView();
  const names = view?.curves.components ?? [];
  const [up, setUp] = useState<number | null>(null);
  const [equal, setEqual] = useState(true);
  const across = Math.min(component.wanted, Math.max(0, names.length - 1));
  const height = up !== null && up < names.length && up !== across ? up : across === 0 ? 1 : 0;
  const plot = useMemo(
    (): Plot | null => view && phasePlot(view, [across, height], equal),
    [view, across, height, equal],
  );
  if (names.length < 2)
    return <p className="quiet nothing">A phase plot needs two components; this problem has one.</p>;
  const options = names.map((label, value) => ({ value, label }));
  return (
    <>
      <div className="plot-panel-controls">
        <Select
          size="small"
          popupMatchSelectWidth={false}
          variant="borderless"
          aria-label="Vertical component"
          value={height}
          options={options.filter(({ value }) => value !== across)}
          onChange={setUp}
        />
        <span className="quiet">vs</span>
        <Select
          size="small"
          popupMatchSelectWidth={false}
          variant="borderless"
          aria-label="Horizontal component"
          value={across}
          options={options}
          onChange={component.choose}
        />
        <Checkbox checked={equal} onChange={(event) => setEqual(event.target.checked)}>
          equal axes
        </Checkbox>
        <RungChoices />
      </div>
      {plot !== null && <PlotCanvas plot={plot} switches={switches} />}
    </>
  );
}
