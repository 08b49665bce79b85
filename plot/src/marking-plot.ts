import { methodMark } from './palette.ts';
import type { Plot, Point, Series } from './plot.ts';
import { markersOf, type RunView } from './run-view.ts';
import { solutionPlot } from './solution-plot.ts';

/** A student's values of the component that is shown. */
export interface StudentPoints {
  readonly name: string;
  readonly points: readonly Point[];
  /** The time of the first wrong row; null where all agree. */
  readonly firstWrong: number | null;
}

/** Place of the student's mark among those of methods: another colour and marker than the first method has. */
const STUDENT = 3;

/**
 * A student's rows as a run of their own, beside the right run and over the exact line; the first wrong row is highlighted.
 *
 * @param view the right run alone
 */
export function markingPlot(
  view: RunView,
  independent: string,
  { name, points, firstWrong }: StudentPoints,
): Plot {
  const plain = solutionPlot(view, independent, false);
  const mark = { ...methodMark(view.palette, STUDENT), filled: true };
  const series: Series = {
    kind: 'dots',
    id: 'student',
    label: name,
    points,
    mark,
    ...markersOf(points.length),
    joined: 1,
    pale: [],
    ground: 'transparent',
  };
  return {
    ...plain,
    title: `${plain.title}, with the rows of ${name}`,
    series: [...plain.series, series],
    overlays: firstWrong === null ? plain.overlays : [{ kind: 'band', x: firstWrong }, ...plain.overlays],
    legend: [...plain.legend, { id: 'student', label: name, mark, color: mark.color }],
  };
}
