import type { PlotData, PlotInk } from '@schritt/core/document';
import { withoutRunaways } from './runaways.ts';
import { errorPlot } from './error-plot.ts';
import { orderOverlays, orderPlot, orderSeries, type OrderView, predictedSeries } from './order-plot.ts';
import { BLACK, type Palette, PRINT } from './palette.ts';
import type { Plot } from './plot.ts';
import { drawnAs, type RunView } from './run-view.ts';
import { solutionPlot } from './solution-plot.ts';

/** The palette that a plot is printed in. */
export function paletteOf(ink: PlotInk): Palette {
  return ink === 'black' ? BLACK : PRINT;
}

/** A plot of numbers that were computed for it, as the page shows it. */
export function plotOf(data: PlotData, palette: Palette): Plot {
  if ('result' in data) {
    const { title, caption, result } = data;
    const view: OrderView = {
      keyed: { result, keys: result.methods.map((_, i) => String(i)) },
      placeOf: Number,
      over: data.kind === 'order' ? 'h' : 'evaluations',
      caption,
      palette,
    };
    const plot = orderPlot(view, [...predictedSeries(view), ...orderSeries(view)], orderOverlays(view));
    return withoutRunaways({ ...plot, title: `${title}. ${plot.title}` });
  }
  const { title, independent, methods, curves, component, drawn } = data;
  const keyed = { curves, keys: methods.map((_, i) => String(i)) };
  const view: RunView = {
    curves,
    ...drawnAs(keyed, Number, (key) => methods[Number(key)] ?? '', palette),
    component: component ?? 0,
    drawn,
    palette,
  };
  const plot =
    data.kind === 'solution'
      ? solutionPlot(view, independent, component === null)
      : errorPlot(view, independent, { logarithmic: true, relative: false, against: null });
  return withoutRunaways({ ...plot, title: `${title}. ${plot.title}` });
}
