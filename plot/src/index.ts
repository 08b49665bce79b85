// What others use of plots besides the palette: the model, what Chart.js takes, and the plots of studies and runs.
export { withoutRunaways } from './runaways.ts';
export { datasetsOf, optionsOf } from './chart.ts';
export { paletteOf, plotOf } from './data-plot.ts';
export { equalise } from './equal-units.ts';
export { errorPlot, type ErrorScale } from './error-plot.ts';
export type { KeyedCurves, KeyedResult } from './keyed.ts';
export {
  type ErrorsOver,
  orderOverlays,
  orderPlot,
  orderSeries,
  type OrderView,
  predictedSeries,
} from './order-plot.ts';
export { methodMark } from './palette.ts';
export { markingPlot, type StudentPoints } from './marking-plot.ts';
export { overlaysPlugin } from './overlays.ts';
export type { Axis, LegendItem, Overlay, Plot, PlotEvents, Point, Series } from './plot.ts';
export {
  drawnAs,
  type DrawnRun,
  markersOf,
  runDots,
  runLegend,
  type RunView,
  truthItem,
} from './run-view.ts';
export { solutionPlot, solutionSeries } from './solution-plot.ts';
export { asCanvas, drawStatic, type PrintSheet, type Sheet, SHEETS } from './static-plot.ts';
export { svgOf } from './svg-head.ts';
export { plotTikz } from './tikz.ts';
export { zipped } from './zipped.ts';
