import { exponential, count, mantissaAndExponent, fixed, stepSizeText } from '@schritt/core/text';
import { evaluations, type RungResult } from '@schritt/core/study';
import type { KeyedResult } from './keyed.ts';
import type { Fit, Overlay, Plot, Point, Series } from './plot.ts';
import { methodMark, type Palette } from './palette.ts';
import { powerLabel } from './tick-text.ts';

/** What errors are shown over. */
export type ErrorsOver = 'h' | 'evaluations';

/** What of a study the plot of its order shows. */
export interface OrderView {
  readonly keyed: KeyedResult;
  /** Place of a method in the study, by key: its colour and marker. */
  readonly placeOf: (key: string) => number;
  readonly over: ErrorsOver;
  /** What the error is of. */
  readonly caption: string;
  readonly palette: Palette;
}

function placeOn(over: ErrorsOver, rung: RungResult): number {
  return over === 'h' ? rung.h : Math.max(1, evaluations(rung.cost));
}

/** Errors of every method: rungs that count are filled, those left out are hollow and pale. */
export function orderSeries({ keyed, placeOf, over, palette }: OrderView): readonly Series[] {
  return keyed.result.methods.map(({ title, rungs }, i) => ({
    kind: 'dots',
    id: keyed.keys[i] ?? '',
    label: title,
    points: rungs.map((rung) => ({
      x: placeOn(over, rung),
      y: rung.error !== null && rung.error > 0 ? rung.error : NaN,
    })),
    mark: { ...methodMark(palette, placeOf(keyed.keys[i] ?? '')), filled: true },
    radius: 4,
    joined: over === 'h' ? 0.8 : 1.6,
    pale: rungs.map(({ leftOut }) => leftOut !== null),
    ground: palette.paper,
  }));
}

/** What theory says the errors are: the leading term of each method, dashed beside the observed ones. */
export function predictedSeries({ keyed, placeOf, over, palette }: OrderView): readonly Series[] {
  if (over !== 'h') return [];
  return keyed.result.methods.flatMap(({ title, rungs, predicted }, i): readonly Series[] => {
    if (predicted === null || !(predicted.constant > 0) || rungs.length === 0) return [];
    const sizes = rungs.map(({ h }) => h);
    const at = (h: number): Point => ({ x: h, y: predicted.constant * h ** predicted.order });
    return [
      {
        kind: 'line',
        id: keyed.keys[i] ?? '',
        label: `${title}, leading term`,
        points: [at(Math.min(...sizes)), at(Math.max(...sizes))],
        color: methodMark(palette, placeOf(keyed.keys[i] ?? '')).color,
        width: 1,
        dashed: true,
      },
    ];
  });
}

function fitsOf({ keyed, placeOf, palette }: OrderView): readonly Fit[] {
  return keyed.result.methods.flatMap(({ fit, order, rungs }, i) => {
    if (fit === null) return [];
    const sizes = fit.rungs.map((rung) => rungs[rung]?.h ?? NaN);
    const at = (x: number): Fit['from'] => ({ x, y: fit.constant * x ** fit.order });
    return [
      {
        id: keyed.keys[i] ?? '',
        color: methodMark(palette, placeOf(keyed.keys[i] ?? '')).color,
        // the range of the order is in the findings
        text: order === null ? `slope ${fixed(fit.order, 2)}` : fixed(order.value, 2),
        from: at(Math.min(...sizes)),
        to: at(Math.max(...sizes)),
      },
    ];
  });
}

/** Fitted lines over their windows, and slopes to compare with; over h alone a slope is an order. */
export function orderOverlays(view: OrderView): readonly Overlay[] {
  const { keyed, over, caption } = view;
  const words: Overlay = { kind: 'caption', upper: caption, lower: over, falls: over === 'evaluations' };
  if (over === 'evaluations') return [words];
  const promised = keyed.result.methods.flatMap(({ promised: of }) =>
    of.kind === 'order' ? [of.order] : [],
  );
  const orders = [...new Set(promised.filter((order) => order > 0))].sort((a, b) => a - b);
  return [words, { kind: 'fits', fits: fitsOf(view) }, { kind: 'guides', orders }];
}

/** A tick as a power of ten with its digit, or beyond `plain` decades from one as the number itself. */
function powerTick(plain: number): (value: number) => string {
  return (value) => {
    const [, exponent] = mantissaAndExponent(value, 1);
    return Math.abs(exponent) <= plain ? stepSizeText(value) : powerLabel(value, 1);
  };
}

const X = { scale: 'logarithmic', tick: powerTick(3) } as const;
const Y = { scale: 'logarithmic', tick: powerTick(-1) } as const;

const TIPS: { readonly [O in ErrorsOver]: NonNullable<Plot['tip']> } = {
  h: (label, { x, y }) => `${label}: error ${exponential(y, 4)} at h = ${stepSizeText(x)}`,
  evaluations: (label, { x, y }) => `${label}: error ${exponential(y, 4)} for ${count(x)} evaluations`,
};

/** Errors over step sizes or over cost, both on logarithmic scales. */
export function orderPlot(
  { over, caption, keyed, placeOf, palette }: OrderView,
  series: readonly Series[],
  overlays: readonly Overlay[],
): Plot {
  const title = `${over === 'h' ? 'Order' : 'Work'}: ${caption} vs ${over}, log-log`;
  const legend = keyed.result.methods.map(({ title: label }, i) => {
    const id = keyed.keys[i] ?? '';
    // as the points that count
    const mark = { ...methodMark(palette, placeOf(id)), filled: true };
    return { id, label, mark, color: mark.color };
  });
  return { title, x: X, y: Y, series, overlays, tip: TIPS[over], legend };
}
