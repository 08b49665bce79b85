import { type ReactNode, useMemo } from 'react';
import { type Pointed, useStudyState } from '../state/study-state.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import {
  type ErrorsOver,
  orderOverlays,
  orderPlot,
  orderSeries,
  type Overlay,
  predictedSeries,
  type Series,
} from '@schritt/plot';
import { usePalette } from '../theme/use-palette.ts';

/** Radius of the markers of rungs that a sentence speaks of. */
const POINTED = 7.5;

/** The series with the rungs that are pointed at drawn larger: a ring around each. */
function ringsOf(
  series: readonly Series[],
  keys: readonly string[],
  pointed: Pointed | null,
): readonly Series[] {
  if (pointed === null) return [];
  return series.flatMap((one, i): readonly Series[] =>
    one.kind === 'dots' && (pointed.key === null || pointed.key === keys[i])
      ? [
          {
            ...one,
            points: pointed.rows.flatMap((row) => one.points[row] ?? []),
            radius: POINTED,
            joined: 0,
            pale: pointed.rows.map((row) => one.pale[row] ?? false),
          },
        ]
      : [],
  );
}

/** How the errors fall with h, or over their cost; a click on a point chooses its rung. */
export function OrderPanel({ over }: { readonly over: ErrorsOver }): ReactNode {
  const { results, methods, chosen, caption, pointed } = useStudyState(
    'results',
    'methods',
    'chosen',
    'caption',
    'pointed',
  );
  const switches = useStudyState('hidden', 'toggle');
  const palette = usePalette();
  const keyed = results.value;
  const view = useMemo(
    () => keyed && { keyed, placeOf: methods.placeOf, over, caption, palette },
    [keyed, methods.placeOf, over, caption, palette],
  );
  const series = useMemo(() => (view === null ? [] : orderSeries(view)), [view]);
  const theory = useMemo(() => (view === null ? [] : predictedSeries(view)), [view]);
  const drawn = useMemo(
    () => [...series, ...theory, ...ringsOf(series, keyed?.keys ?? [], pointed)],
    [series, theory, keyed, pointed],
  );
  const fixed = useMemo(() => (view === null ? [] : orderOverlays(view)), [view]);
  const h = chosen.grid?.h ?? null;
  const plot = useMemo(() => {
    if (view === null) return null;
    const band: readonly Overlay[] = h === null || over !== 'h' ? [] : [{ kind: 'band', x: h }];
    return orderPlot(view, drawn, [...band, ...fixed]);
  }, [view, drawn, fixed, h, over]);
  if (plot === null) return <div className="plot" />;
  return <PlotCanvas plot={plot} switches={switches} onChoose={chosen.chooseRow} />;
}
