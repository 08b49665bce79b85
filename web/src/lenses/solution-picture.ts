import { short } from '@schritt/core/notation';
import type { KeyedCurves } from '../desk/use-results.ts';
import type { Picture, Series } from '../pictures/picture.ts';
import { methodMark, type Palette } from '../theme/tokens.ts';
import { markersOf } from './run-pictures.ts';

/** What of a study the picture of its solution shows. */
export interface SolutionView {
  readonly keyed: KeyedCurves;
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  readonly component: number;
  readonly palette: Palette;
}

/** Dots of every method over the exact line. */
export function solutionSeries({
  keyed,
  placeOf,
  titleOf,
  component,
  palette,
}: SolutionView): readonly Series[] {
  const { curves, keys } = keyed;
  const exact = curves.exact.values[component] ?? null;
  const line: Series = {
    kind: 'line',
    label: 'exact',
    points: exact === null ? [] : curves.exact.t.map((t, i) => ({ x: t, y: exact[i] ?? NaN })),
    color: palette.ink,
    width: 1.4,
  };
  const dots = curves.methods.map(({ components, steps }, i): Series => {
    const key = keys[i] ?? '';
    const points = components[component];
    return {
      kind: 'dots',
      label: titleOf(key),
      points: points?.t.map((t, n) => ({ x: t, y: points.values[n] ?? NaN })) ?? [],
      mark: methodMark(palette, placeOf(key)),
      ...markersOf(steps),
      pale: [],
      ground: 'transparent',
    };
  });
  return [line, ...dots];
}

/** The axes and words of the picture; what is marked is laid over it by its lens. */
export function solutionFrame(
  { keyed, component }: SolutionView,
  independent: string,
): Pick<Picture, 'title' | 'x' | 'y' | 'tip' | 'overlays'> {
  const { exact, components } = keyed.curves;
  const name = components[component] ?? '';
  return {
    title: `Solution: ${name} over ${independent}`,
    x: { scale: 'linear', range: [exact.t[0] ?? 0, exact.t.at(-1) ?? 1], mostTicks: 9 },
    y: { scale: 'linear', grace: 0.06, mostTicks: 7 },
    tip: (label, { x, y }) => `${label}: ${name} = ${short(y, 8)} at ${independent} = ${short(x, 6)}`,
    overlays: [{ kind: 'caption', upper: name, lower: independent, falls: false }],
  };
}
