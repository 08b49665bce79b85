import { createCanvas } from '@napi-rs/canvas';
import { Chart } from 'chart.js';
import { datasetsOf, optionsOf } from './chart.ts';
import { asCanvas } from './static-plot.ts';
import { PRINT } from './palette.ts';
import type { Plot } from './plot.ts';

/** The ends and labels of the y axis of a curve through some values. */
function axisOf(values: readonly number[]): {
  readonly ends: readonly number[];
  readonly labels: readonly string[];
} {
  const plot: Plot = {
    title: '',
    x: { scale: 'linear' },
    y: { scale: 'linear', grace: 0.06, mostTicks: 7 },
    series: [
      {
        kind: 'line',
        id: 'a',
        label: '',
        points: values.map((y, x) => ({ x, y })),
        color: '#000000',
        width: 1,
      },
    ],
    overlays: [],
    tip: null,
    legend: [],
  };
  const chart = new Chart(asCanvas(createCanvas(400, 300)), {
    type: 'scatter',
    data: { datasets: datasetsOf(plot, 400) },
    options: { ...optionsOf(plot, PRINT, () => ({})), responsive: false },
  });
  const { min = NaN, max = NaN, ticks = [] } = chart.scales['y'] ?? {};
  const labels = ticks.map(({ label }) => String(label ?? ''));
  chart.destroy();
  return { ends: [min, max], labels };
}

test('an axis of values that have one sign ends at 0 where its margin would go beyond', () => {
  const growth = Array.from({ length: 21 }, (_, n) => Math.exp(n / 4));
  expect(axisOf(growth).ends).toEqual([0, 200]);
  expect(axisOf(growth.map((y) => -y)).ends).toEqual([-200, 0]);
  expect(axisOf(growth).labels).toEqual(['0', '50', '100', '150', '200']);
});

test('an axis of values with both signs keeps its margin, and its labels have a minus sign', () => {
  const { ends, labels } = axisOf([-1, 1]);
  expect(ends[0]).toBeLessThan(-1);
  expect(labels).toContain('−1.0');
});
