import {
  Chart,
  type ChartDataset,
  type ChartOptions,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  type PointStyle,
  type ScriptableScaleContext,
  type Scale,
  ScatterController,
  type Tick,
  Tooltip,
} from 'chart.js';
import { withMinus } from '@schritt/core/text';
import { DOTS_ORDER } from './nearest-dot.ts';
import { type MarkerShape, type Palette, SANS } from './palette.ts';
import { thinned } from './thinned.ts';
import { linearTick } from './tick-text.ts';
import type { Axis, Dots, Plot, PlotEvents, Point, Series } from './plot.ts';

Chart.register(
  LinearScale,
  LogarithmicScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
);
Chart.defaults.font.family = SANS;
Chart.defaults.font.size = 12;
Chart.defaults.animation = false;

/** The styles of points that markers are drawn with. */
export const STYLES: Readonly<Record<MarkerShape, PointStyle>> = {
  square: 'rect',
  circle: 'circle',
  triangle: 'triangle',
  diamond: 'rectRot',
  plus: 'cross',
  cross: 'crossRot',
};

/** Pixels beyond the axes in which markers are drawn. */
const EDGE = 8;

/** Lengths of a dash and of the gap behind it, in pixels. */
const DASH = [5, 4] as const;

type Dataset = ChartDataset<'scatter', Point[]>;

/** A faded colour. */
function paleOf(color: string): string {
  return `${color}99`;
}

/** The colour of every point, and one for all where none is pale: Chart.js works out the options of points once then. */
function colorOf({ points, pale }: Dots, usual: string, paleColor: string): string | string[] {
  const isPale = points.map((_, i) => pale[i] === true);
  return isPale.includes(true) ? isPale.map((is) => (is ? paleColor : usual)) : usual;
}

function dotsDataset(dots: Dots): Dataset {
  const { mark, radius, joined, ground, points, label } = dots;
  const { color, filled, shape } = mark;
  const fill = colorOf(dots, filled ? color : ground, ground);
  return {
    label,
    data: [...points],
    order: DOTS_ORDER,
    // a marker at the edge is a whole one
    clip: EDGE,
    showLine: joined > 0,
    borderWidth: joined,
    borderColor: joined < 1 ? paleOf(color) : color,
    pointStyle: STYLES[shape],
    pointRadius: radius === 0 || shape !== 'square' ? radius : radius + 0.5,
    pointHoverRadius: radius + 1.5,
    pointBorderWidth: 1.6,
    pointHoverBorderWidth: 2,
    pointBorderColor: colorOf(dots, color, paleOf(color)),
    pointBackgroundColor: fill,
    pointHoverBackgroundColor: fill,
  };
}

function datasetOf(series: Series): Dataset {
  if (series.kind === 'dots') return dotsDataset(series);
  const { label, points, color, width } = series;
  return {
    label,
    data: [...points],
    order: DOTS_ORDER + 1,
    showLine: true,
    borderColor: color,
    borderWidth: width,
    borderDash: series.dashed === true ? [...DASH] : [],
    pointRadius: 0,
    pointHitRadius: 0,
  };
}

/** Pixels that the numbers beside a plot take, about. */
const AXIS = 50;

/** The datasets of a plot on a canvas of a width in pixels. */
export function datasetsOf(plot: Plot, width: number): Dataset[] {
  return thinned(plot, width - AXIS).map(datasetOf);
}

/** Pixels that the number of a tick needs, along each axis. */
const ACROSS = 46;
const UP = 20;

/**
 * Whether a tick of a logarithmic axis has its number: whole decades, as many as there is room for, and 2 and 5 within
 * them where there are few, so that there are always two.
 *
 * @param decades that the axis runs over
 * @param room numbers that are beside one another
 */
export function isNumbered(value: number, decades: number, room: number): boolean {
  const power = Math.floor(Math.log10(value) + 1e-9);
  const digit = Math.round(value / 10 ** power);
  if (Math.abs(value / 10 ** power - digit) > 1e-6) return false;
  if (decades < 2.2 && 3 * decades <= room) return digit === 1 || digit === 2 || digit === 5;
  return digit === 1 && power % Math.max(1, Math.ceil(decades / Math.max(1, room))) === 0;
}

/** Ends an axis at 0 where its margin would reach beyond it although no value does. */
function endAtZero(scale: Scale): void {
  const { min, max } = scale.getMinMax(false);
  if (min >= 0 && scale.min < 0) scale.min = 0;
  if (max <= 0 && scale.max > 0) scale.max = 0;
  scale.ticks = scale.ticks.filter(({ value }) => value >= scale.min && value <= scale.max);
}

/** An axis over the lines of the graph paper, without a frame. */
function axisOptions({ scale, range, grace, mostTicks, tick }: Axis, palette: Palette): object {
  return {
    type: scale,
    ...(range === undefined ? {} : { min: range[0], max: range[1] }),
    ...(grace === undefined ? {} : { grace: `${100 * grace}%`, afterBuildTicks: endAtZero }),
    ticks: {
      color: palette.quiet,
      maxRotation: 0,
      includeBounds: false,
      padding: 6,
      ...(mostTicks === undefined ? {} : { maxTicksLimit: mostTicks }),
      ...(scale === 'linear'
        ? {
            callback(value: number | string, _index: number, ticks: Tick[]): string {
              const values = ticks.map((tick) => tick.value);
              return withMinus(linearTick(Number(value), values));
            },
          }
        : {
            autoSkip: false,
            callback(this: Scale, value: number | string): string {
              const pixels = this.isHorizontal() ? this.width : this.height;
              const room = this.isHorizontal() ? ACROSS : UP;
              const decades = Math.log10(this.max / this.min);
              return isNumbered(Number(value), decades, pixels / room) ? (tick ?? String)(Number(value)) : '';
            },
          }),
    },
    grid: {
      // lines within a decade only where they do not run into one another
      color:
        scale === 'linear'
          ? palette.gridCoarse
          : ({ tick: { value }, scale: { min, max } }: ScriptableScaleContext) => {
              const power = Math.log10(value);
              if (Math.abs(power - Math.round(power)) < 1e-9) return palette.gridCoarse;
              return Math.log10(max / min) > 3 ? 'transparent' : palette.gridFine;
            },
      lineWidth: 0.9,
      drawTicks: false,
    },
    border: { display: false },
  };
}

function pointAt(chart: Chart, dataset: number, index: number): Point | null {
  const point = chart.data.datasets[dataset]?.data[index];
  return typeof point === 'object' && point !== null && 'x' in point && 'y' in point
    ? { x: Number(point.x), y: Number(point.y) }
    : null;
}

/**
 * The options of a plot.
 *
 * @param events those of the moment at which something happens, not of the one at which the plot was made
 */
export function optionsOf(plot: Plot, palette: Palette, events: () => PlotEvents): ChartOptions<'scatter'> {
  const { x, y, tip } = plot;
  return {
    responsive: true,
    maintainAspectRatio: false,
    ...(tip === null ? { events: [] } : {}),
    interaction: plot.reads === true ? { mode: 'dots' } : { mode: 'nearest', intersect: true },
    layout: { padding: { top: 8, right: 13 } },
    scales: { x: axisOptions(x, palette), y: axisOptions(y, palette) },
    plugins: {
      legend: { display: false },
      tooltip: {
        enabled: tip !== null,
        backgroundColor: palette.ink,
        bodyColor: palette.paper,
        displayColors: false,
        callbacks: {
          label: ({ dataset, parsed }) => {
            const said = tip?.(dataset.label ?? '', { x: parsed.x ?? NaN, y: parsed.y ?? NaN }) ?? '';
            return typeof said === 'string' ? said : [...said];
          },
        },
      },
    },
    onHover: (_, [element], chart) =>
      events().onPoint?.(element === undefined ? null : pointAt(chart, element.datasetIndex, element.index)),
    onClick: (_, [element]) => {
      if (element !== undefined) events().onChoose?.(element.index);
    },
  };
}
