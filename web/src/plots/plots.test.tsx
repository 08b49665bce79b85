/** @jest-environment jsdom */
import type { Plot } from '@schritt/plot';
import { DARK } from '@schritt/plot/palette';
import { render } from '@testing-library/react';
import { Chart } from 'chart.js';
import { PaletteContext } from '../theme/use-palette.ts';
import { PlotCanvas } from './plot-canvas.tsx';
import { usePreparedPlots } from './use-prepared-plots.ts';

jest.mock('chart.js', () => {
  const Fake = Object.assign(
    jest
      .fn()
      .mockImplementation(
        (_canvas: unknown, config: { data: object; options: object; plugins: object[] }) => ({
          ...config,
          draw: jest.fn(),
          update: jest.fn(),
          destroy: jest.fn(),
        }),
      ),
    { register: jest.fn(), defaults: { font: {} } },
  );
  return { Chart: Fake, Interaction: { modes: {} } };
});

const made = jest.mocked<jest.Mock>(Object.assign(Chart));

const PLOT: Plot = {
  title: 'Solution: level over t',
  x: { scale: 'linear' },
  y: { scale: 'linear' },
  series: [{ kind: 'line', id: 'exact', label: 'exact', points: [], color: '#000000', width: 1.4 }],
  overlays: [],
  tip: null,
  legend: [],
};

beforeEach(() => {
  jest.useFakeTimers();
  made.mockClear();
});

afterEach(() => {
  jest.useRealTimers();
});

test('the chart is made once; a mark that moves is only drawn again, new series are put in', () => {
  const page = render(<PlotCanvas plot={PLOT} />);
  const canvas = page.getByRole('img', { name: 'Solution: level over t' });
  jest.runAllTimers();
  const chart = made.mock.results[0]?.value;
  const marked: Plot = { ...PLOT, overlays: [{ kind: 'band', x: 1 }] };
  page.rerender(<PlotCanvas plot={marked} />);
  jest.runAllTimers();
  expect([chart.draw.mock.calls.length, chart.update.mock.calls.length]).toEqual([1, 0]);
  page.rerender(<PlotCanvas plot={{ ...marked, series: [...PLOT.series] }} />);
  page.rerender(<PlotCanvas plot={{ ...marked, series: [...PLOT.series] }} />);
  jest.runAllTimers();
  // of two that follow one another at once the last one is drawn
  expect(chart.update.mock.calls).toEqual([['none']]);
  page.rerender(
    <PaletteContext value={DARK}>
      <PlotCanvas plot={PLOT} />
    </PaletteContext>,
  );
  expect(made.mock.calls.length).toBeLessThanOrEqual(2);
  expect(canvas.tagName).toBe('CANVAS');
  page.unmount();
  expect(chart.destroy).toHaveBeenCalledTimes(1);
});

test('events are those of the moment, not of the one when the chart was made', () => {
  const [first, second] = [jest.fn(), jest.fn()];
  const page = render(<PlotCanvas plot={PLOT} onPoint={first} onChoose={first} />);
  page.rerender(<PlotCanvas plot={PLOT} onPoint={second} onChoose={second} />);
  jest.runAllTimers();
  const { options } = made.mock.results[0]!.value;
  const chart = { data: { datasets: [{ data: [] }, { data: [{ x: 3, y: 4 }] }] } };
  options.onHover(null, [{ datasetIndex: 1, index: 0 }], chart);
  options.onHover(null, [], chart);
  options.onClick(null, [{ datasetIndex: 1, index: 5 }]);
  options.onClick(null, []);
  expect(first).not.toHaveBeenCalled();
  expect(second.mock.calls).toEqual([[{ x: 3, y: 4 }], [null], [5]]);
});

/** A page whose plots come later. */
function Preparing(): null {
  usePreparedPlots();
  return null;
}

test('a plot is drawn before any is asked for, and is shown nowhere', () => {
  const page = render(<Preparing />);
  expect(made).not.toHaveBeenCalled();
  jest.runAllTimers();
  expect(made).toHaveBeenCalledTimes(1);
  expect(made.mock.results[0]?.value.destroy).toHaveBeenCalledTimes(1);
  expect(document.querySelector('canvas')).toBeNull();
  page.rerender(<Preparing />);
  jest.runAllTimers();
  expect(made).toHaveBeenCalledTimes(1);
});

test('a page that is left before draws none', () => {
  render(<Preparing />).unmount();
  jest.runAllTimers();
  expect(made).not.toHaveBeenCalled();
});
