import { type ReactNode, useMemo, useState } from 'react';
import { useDesk } from '../desk/desk.ts';
import { PictureCanvas } from '../pictures/picture-canvas.tsx';
import type { Picture } from '../pictures/picture.ts';
import { usePalette } from '../theme/use-palette.ts';
import { type LensChoice, LensChoices } from './lens-head.tsx';
import { errorFrame, errorSeries, phaseFrame, phaseSeries, type RunView } from './run-pictures.ts';

/** What the pictures of a run are made from; null before there are curves. */
function useRunView(): RunView | null {
  const { curves, methods, component } = useDesk();
  const palette = usePalette();
  const keyed = curves.value;
  const { placeOf, titleOf } = methods;
  const shown = Math.min(component.wanted, Math.max(0, (keyed?.curves.components.length ?? 1) - 1));
  return useMemo(
    () => keyed && { keyed, placeOf, titleOf, component: shown, palette },
    [keyed, placeOf, titleOf, shown, palette],
  );
}

/** The components as choices of a lens; none where there is one. */
function useComponentChoices(): readonly LensChoice[] {
  const { curves, component } = useDesk();
  const names = curves.value?.curves.components ?? [];
  if (names.length < 2) return [];
  const shown = Math.min(component.wanted, names.length - 1);
  return names.map((name, i) => ({
    key: name,
    label: name,
    isChosen: i === shown,
    choose: () => component.choose(i),
  }));
}

/** The errors of every method over time. */
export function ErrorLens(): ReactNode {
  const { independent, problem } = useDesk();
  const view = useRunView();
  const components = useComponentChoices();
  const [scale, setScale] = useState({ logarithmic: true, relative: false });
  const picture = useMemo(
    (): Picture | null =>
      view && { ...errorFrame(view, independent, scale), series: errorSeries(view, scale) },
    [view, independent, scale],
  );
  const isKnown =
    problem !== null && picture?.series.some(({ points }) => points.some(({ y }) => !Number.isNaN(y)));
  return (
    <>
      <LensChoices
        choices={[
          ...components,
          {
            key: 'logarithmic',
            label: 'logarithmic',
            isChosen: scale.logarithmic,
            choose: () => setScale((now) => ({ ...now, logarithmic: !now.logarithmic })),
          },
          {
            key: 'relative',
            label: 'relative',
            isChosen: scale.relative,
            choose: () => setScale((now) => ({ ...now, relative: !now.relative })),
          },
        ]}
      />
      <div className="picture">
        {picture !== null && isKnown === true && <PictureCanvas picture={picture} />}
        {picture !== null && isKnown !== true && (
          <p className="quiet nothing">
            No error to be shown: the exact solution of this component is not known, or every error is null.
          </p>
        )}
      </div>
    </>
  );
}

/** Two components of every run against one another. */
export function PhaseLens(): ReactNode {
  const view = useRunView();
  const { component } = useDesk();
  const names = view?.keyed.curves.components ?? [];
  const [up, setUp] = useState<number | null>(null);
  const across = Math.min(component.wanted, Math.max(0, names.length - 1));
  const height = up !== null && up < names.length && up !== across ? up : across === 0 ? 1 : 0;
  const picture = useMemo(
    (): Picture | null =>
      view && {
        ...phaseFrame(view, [across, height]),
        series: phaseSeries(view, [across, height]),
      },
    [view, across, height],
  );
  if (names.length < 2)
    return <p className="quiet nothing">A phase picture needs two components; this problem has one.</p>;
  return (
    <>
      <LensChoices
        choices={names.map((name, i) => ({
          key: name,
          label: name,
          isChosen: i === across || i === height,
          choose: () => (i === across ? setUp(null) : setUp(i)),
        }))}
      />
      <div className="picture">{picture !== null && <PictureCanvas picture={picture} />}</div>
    </>
  );
}
