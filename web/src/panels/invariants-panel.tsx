import { exponential, short } from '@schritt/core/text';
import { type ReactNode, useMemo } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useSide } from '../state/use-results.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { markersOf, type Plot, type Series } from '@schritt/plot';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';

/** Points of a run that the plot shows, about. */
const POINTS = 400;

/** How far the first conserved quantity has drifted from its value at the start, over time. */
export function InvariantsPanel(): ReactNode {
  const { good, chosen, methods, independent, problem } = useStudyState(
    'good',
    'chosen',
    'methods',
    'independent',
    'problem',
  );
  const switches = useStudyState('hidden', 'toggle');
  const palette = usePalette();
  const h = chosen.grid?.wished ?? null;
  const steps = chosen.grid?.steps ?? 1;
  const name = problem?.conserved[0]?.name ?? null;
  const window = useMemo(() => {
    if (h === null || name === null) return null;
    const every = Math.max(1, Math.ceil(steps / POINTS));
    return {
      gridRequest: { h },
      from: 0,
      count: Math.floor(steps / every) + 1,
      every,
      points: null,
      components: [0],
      stages: false,
    };
  }, [h, name, steps]);
  const side = useSide(good.document, window);
  const plot = useMemo((): Plot | null => {
    if (side.value === null || name === null) return null;
    const { rows } = side.value;
    const series = good.keys.map((key, i): Series => {
      const start = rows[0]?.conserved[i] ?? NaN;
      return {
        kind: 'dots',
        id: key,
        label: methods.titleOf(key),
        points: rows.map((row) => ({ x: row.t, y: (row.conserved[i] ?? NaN) - start })),
        mark: methodMark(palette, methods.placeOf(key)),
        radius: Math.min(3, markersOf(rows.length).radius),
        joined: 1,
        pale: [],
        ground: palette.paper,
      };
    });
    return {
      title: `${name} − ${name}(0) vs ${independent}`,
      x: { scale: 'linear', mostTicks: 9, range: [rows[0]?.t ?? 0, rows.at(-1)?.t ?? 1] },
      y: { scale: 'linear', grace: 0.08, mostTicks: 7 },
      series,
      overlays: [{ kind: 'caption', upper: `${name} − ${name}(0)`, lower: independent, falls: false }],
      legend: good.keys.map((id) => {
        const mark = methodMark(palette, methods.placeOf(id));
        return { id, label: methods.titleOf(id), mark, color: mark.color };
      }),
      reads: true,
      tip: (label, { x, y }) =>
        `${label}: ${name} has drifted by ${exponential(y, 3)} at ${independent} = ${short(x, 6)}`,
    };
  }, [side.value, name, good.keys, methods, palette, independent]);
  if (name === null)
    return (
      <p className="quiet nothing">
        The problem declares no conserved quantity: add a line such as conserved E = x^2 + v^2.
      </p>
    );
  if (plot === null) return <div className="plot" />;
  return <PlotCanvas plot={plot} switches={switches} />;
}
