import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  type Plugin,
  PointElement,
  type PointStyle,
  ScatterController,
  Tooltip,
} from 'chart.js';
import { type MarkerShape, type MethodMark, type Palette } from '../theme/tokens.ts';
import { SANS } from '../theme/ant-theme.ts';

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

/** Chart options of a method's marker; hollow ones show the given ground, or what lies under them. */
export function pointOptions(mark: MethodMark, ground: string, radius = 4): object {
  return {
    pointStyle: STYLES[mark.shape],
    pointRadius: mark.shape === 'square' ? radius + 0.5 : radius,
    pointHoverRadius: radius + 1.5,
    pointBorderWidth: 1.6,
    pointHoverBorderWidth: 2,
    pointBorderColor: mark.color,
    pointBackgroundColor: mark.filled ? mark.color : ground,
    pointHoverBackgroundColor: mark.filled ? mark.color : ground,
    borderColor: mark.color,
  };
}

/** Lines of the graph paper, and no frame. */
export function paperGrid(palette: Palette): object {
  return {
    grid: { color: palette.gridCoarse, lineWidth: 0.9, drawTicks: false },
    border: { display: false },
  };
}

/** A highlighter stroke across the picture at a place of the horizontal axis; none for null. */
export function bandPlugin(id: string, place: number | null, palette: Palette): Plugin {
  return {
    id,
    beforeDatasetsDraw(chart) {
      const scale = chart.scales['x'];
      if (place === null || scale === undefined) return;
      const x = scale.getPixelForValue(place);
      const { top, bottom, left, right } = chart.chartArea;
      if (x < left - 8 || x > right + 8) return;
      chart.ctx.save();
      chart.ctx.fillStyle = palette.highlight;
      chart.ctx.globalAlpha = 0.85;
      chart.ctx.fillRect(x - 8, top, 16, bottom - top);
      chart.ctx.restore();
    },
  };
}

/** Words in the picture itself: the quantity at the top, the variable in the corner opposite to the curves' fall. */
export function captionPlugin(
  id: string,
  upper: string,
  lower: string,
  palette: Palette,
  falls = false,
): Plugin {
  return {
    id,
    afterDatasetsDraw(chart) {
      const { ctx, chartArea } = chart;
      ctx.save();
      ctx.font = `italic 13px 'Source Serif 4', Georgia, serif`;
      ctx.fillStyle = palette.quiet;
      const place = (right: boolean): number => (right ? chartArea.right - 4 : chartArea.left + 6);
      ctx.textAlign = falls ? 'right' : 'left';
      ctx.fillText(upper, place(falls), chartArea.top + 12);
      ctx.textAlign = falls ? 'left' : 'right';
      ctx.fillText(lower, place(!falls), chartArea.bottom - 6);
      ctx.restore();
    },
  };
}
