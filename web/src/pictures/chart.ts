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
  ScatterController,
  Tooltip,
} from 'chart.js';
import { SANS } from '../theme/ant-theme.ts';
import type { MarkerShape, Palette } from '../theme/tokens.ts';
import type { Axis, Dots, Picture, PictureEvents, Point, Series } from './picture.ts';

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
Chart.defaults.font.size = 11;
Chart.defaults.animation = false;

const STYLES: Readonly<Record<MarkerShape, PointStyle>> = {
  square: 'rect',
  circle: 'circle',
  triangle: 'triangle',
  diamond: 'rectRot',
  plus: 'cross',
  cross: 'crossRot',
};

type Dataset = ChartDataset<'scatter', Point[]>;

/** A colour so that it stands back. */
function paleOf(color: string): string {
  return `${color}99`;
}

function dotsDataset(dots: Dots): Dataset {
  const { mark, radius, joined, pale, ground, points, label } = dots;
  const { color, filled, shape } = mark;
  const fill = points.map((_, i) => (pale[i] === true || !filled ? ground : color));
  return {
    label,
    data: [...points],
    order: 1,
    showLine: joined > 0,
    borderWidth: joined,
    borderColor: joined < 1 ? paleOf(color) : color,
    pointStyle: STYLES[shape],
    pointRadius: radius === 0 || shape !== 'square' ? radius : radius + 0.5,
    pointHoverRadius: radius + 1.5,
    pointBorderWidth: 1.6,
    pointHoverBorderWidth: 2,
    pointBorderColor: points.map((_, i) => (pale[i] === true ? paleOf(color) : color)),
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
    order: 2,
    showLine: true,
    borderColor: color,
    borderWidth: width,
    pointRadius: 0,
    pointHitRadius: 0,
  };
}

/** The datasets of a picture. */
export function datasetsOf(picture: Picture): Dataset[] {
  return picture.series.map(datasetOf);
}

/** An axis over the lines of the graph paper, without a frame. */
function axisOptions({ scale, range, grace, mostTicks, tick }: Axis, palette: Palette): object {
  return {
    type: scale,
    ...(range === undefined ? {} : { min: range[0], max: range[1] }),
    ...(grace === undefined ? {} : { grace: `${100 * grace}%` }),
    ticks: {
      color: palette.quiet,
      maxRotation: 0,
      padding: 6,
      ...(mostTicks === undefined ? {} : { maxTicksLimit: mostTicks }),
      ...(tick === undefined ? {} : { callback: (value: number | string) => tick(Number(value)) }),
    },
    grid: { color: palette.gridCoarse, lineWidth: 0.9, drawTicks: false },
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
 * The options of a picture.
 *
 * @param events those of the moment at which something happens, not of the one at which the picture was made
 */
export function optionsOf(
  picture: Picture,
  palette: Palette,
  events: () => PictureEvents,
): ChartOptions<'scatter'> {
  const { x, y, tip } = picture;
  return {
    responsive: true,
    maintainAspectRatio: false,
    ...(tip === null ? { events: [] } : {}),
    interaction: { mode: 'nearest', intersect: true },
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
          label: ({ dataset, parsed }) =>
            tip?.(dataset.label ?? '', { x: parsed.x ?? NaN, y: parsed.y ?? NaN }) ?? '',
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
