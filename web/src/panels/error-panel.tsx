import { Checkbox, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { errorPlot, type ErrorScale, type Plot } from '@schritt/plot';
import { ComponentChoices, RungChoices } from './plot-head.tsx';
import { useRunView } from './use-run-view.ts';

/** The errors of every run over time, or the differences of runs from one of them. */
export function ErrorPanel(): ReactNode {
  const { independent } = useStudyState('independent');
  const switches = useStudyState('hidden', 'toggle');
  const view = useRunView();
  const [wanted, setScale] = useState<ErrorScale>({ logarithmic: true, relative: false, against: null });
  const runs = view?.runs ?? [];
  const isThere = runs.length > 1 && runs.some(({ id }) => id === wanted.against);
  const against = isThere ? wanted.against : null;
  const scale = useMemo(() => ({ ...wanted, against }), [wanted, against]);
  const plot = useMemo(
    (): Plot | null => view && errorPlot(view, independent, scale),
    [view, independent, scale],
  );
  const isKnown = plot?.series.some(({ points }) => points.some(({ y }) => !Number.isNaN(y))) ?? false;
  return (
    <>
      <div className="plot-panel-controls">
        <ComponentChoices canTogether={false} />
        <Checkbox
          checked={scale.logarithmic}
          onChange={({ target }) => setScale((now) => ({ ...now, logarithmic: target.checked }))}
        >
          logarithmic
        </Checkbox>
        <Checkbox
          checked={scale.relative}
          onChange={({ target }) => setScale((now) => ({ ...now, relative: target.checked }))}
        >
          relative
        </Checkbox>
        {runs.length > 1 && (
          <Select
            size="small"
            popupMatchSelectWidth={false}
            variant="borderless"
            aria-label="Compare runs with"
            value={against ?? ''}
            options={[
              { value: '', label: 'against the solution' },
              ...runs.map(({ id, label }) => ({ value: id, label: `from ${label}` })),
            ]}
            onChange={(id) => setScale((now) => ({ ...now, against: id === '' ? null : id }))}
          />
        )}
        <RungChoices />
      </div>
      {plot !== null && isKnown && <PlotCanvas plot={plot} switches={switches} />}
      {plot !== null && !isKnown && (
        <p className="quiet nothing">
          {against === null
            ? 'No error to show: the solution of this component is not known, or all errors are zero.'
            : 'No difference to show: these runs share no grid point or agree in all digits.'}
        </p>
      )}
    </>
  );
}
