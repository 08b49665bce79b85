import { short } from '@schritt/core/text';
import { Segmented, Slider } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useProfile } from '../state/use-results.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';
import { profilePlot } from './profile-plot.ts';

/** A family of unknowns over its index, at a time that a slider chooses. */
export function ProfilePanel(): ReactNode {
  const { good, chosen, view, setView, independent, problem, methods } = useStudyState(
    'good',
    'chosen',
    'view',
    'setView',
    'independent',
    'problem',
    'methods',
  );
  const switches = useStudyState('hidden', 'toggle');
  const palette = usePalette();
  const [family, setFamily] = useState(0);
  const families = problem?.blocks.filter(({ unknown }) => unknown.range !== null) ?? [];
  const { grid } = chosen;
  const steps = grid?.steps ?? 0;
  const n = Math.min(view.n, steps);
  const shown = Math.min(family, Math.max(0, families.length - 1));
  const wished = grid?.wished ?? null;
  const hasFamily = families.length > 0;
  const gridRequest = useMemo(
    () => (wished === null || !hasFamily ? null : { gridRequest: { h: wished }, n, family: shown }),
    [wished, n, shown, hasFamily],
  );
  const { value, why } = useProfile(good.document, gridRequest);
  const plot = useMemo(
    () =>
      value &&
      profilePlot(
        value,
        good.keys.map((id) => ({
          id,
          label: methods.titleOf(id),
          mark: methodMark(palette, methods.placeOf(id)),
        })),
        independent,
        palette,
      ),
    [value, good.keys, methods, independent, palette],
  );
  if (!hasFamily)
    return <p className="quiet nothing">A profile needs a family of unknowns, such as u[i] for i = 1..20.</p>;
  return (
    <>
      <div className="plot-panel-controls profile-ways">
        {families.length > 1 && (
          <Segmented
            size="small"
            aria-label="Family"
            options={families.map(({ name }, i) => ({ value: i, label: name }))}
            value={shown}
            onChange={setFamily}
          />
        )}
        <Slider
          className="time-slider"
          min={0}
          max={Math.max(1, steps)}
          value={n}
          ariaLabelForHandle="Time of the profile: grid point n"
          // see the sliders of parameters: a tooltip cannot follow keys that come fast
          tooltip={{ open: false }}
          onChange={(next) => setView({ n: next })}
        />
        <span className="value">{`${independent} = ${short(value?.t ?? grid?.start ?? 0, 5)}`}</span>
      </div>
      {why !== null && <p className="wrong nothing">{why}</p>}
      {plot !== null && <PlotCanvas plot={plot} switches={switches} />}
    </>
  );
}
