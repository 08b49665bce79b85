import type { Chart } from 'chart.js';

/** How far two units may differ, as a part, and still count as equal. */
const ALIKE = 0.002;

/** Lets a unit be as long across as up, and lays the chart out anew. */
export function equalise(chart: Chart): void {
  // other ranges may have longer labels, which change the room for the plot: the second time settles that
  for (let i = 0; i < 2; i += 1) {
    widen(chart);
    chart.update('none');
  }
}

/** Widens the range of the axis that has too much room. */
function widen(chart: Chart): void {
  const { x, y } = chart.scales;
  const { width, height } = chart.chartArea;
  if (x === undefined || y === undefined || !(width > 0) || !(height > 0)) return;
  const [spanX, spanY] = [x.max - x.min, y.max - y.min];
  const unit = Math.max(spanX / width, spanY / height);
  for (const [scale, span, room] of [
    [x, spanX, width],
    [y, spanY, height],
  ] as const) {
    const more = (unit * room - span) / 2;
    const options = chart.options.scales?.[scale.id];
    if (options === undefined || more < ALIKE * span) continue;
    options.min = scale.min - more;
    options.max = scale.max + more;
  }
}
