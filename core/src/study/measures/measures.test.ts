import { type GridMeasure, summarize } from './measure.ts';
import { ERROR_MEASURES, MEASURE_NAMES } from './measures.ts';

const SLUICE = { end: 6, independent: 't' };

test('the maximum and the root mean square of errors, NaN where one of them is', () => {
  const errors = [0.3, 0.4, 0, 1.2];
  expect(summarize(ERROR_MEASURES.max, errors)).toBe(1.2);
  // 0.09 + 0.16 + 0 + 1.44 = 1.69
  expect(summarize(ERROR_MEASURES.rms, errors)).toBeCloseTo(Math.sqrt(1.69 / 4), 15);
  for (const measure of [ERROR_MEASURES.max, ERROR_MEASURES.rms])
    expect(summarize(measure, [0.3, NaN, 1.2])).toBeNaN();
});

test('every measure has a label and a caption of its own', () => {
  expect(new Set(MEASURE_NAMES.map((name) => ERROR_MEASURES[name].label)).size).toBe(MEASURE_NAMES.length);
  expect(MEASURE_NAMES.map((name) => ERROR_MEASURES[name].caption('relative error', SLUICE))).toEqual([
    'relative error at t = 6',
    'maximum relative error',
    'RMS relative error',
    'local relative error',
  ]);
});

/** A spreadsheet's functions on a column of numbers. */
const SHEET: Readonly<Record<string, (cells: readonly number[]) => number>> = {
  MAX: (cells) => Math.max(...cells),
  SUMSQ: (cells) => cells.reduce((sum, cell) => sum + cell * cell, 0),
  COUNT: (cells) => cells.length,
  SQRT: ([only = NaN]) => Math.sqrt(only),
};

test('a spreadsheet computes what a run does', () => {
  const errors = [0.3, 0.4, 0, 1.2];
  const measures: readonly GridMeasure[] = [ERROR_MEASURES.max, ERROR_MEASURES.rms];
  for (const measure of measures) {
    const called = measure.sheet('errors').replaceAll(/[A-Z]+/g, (name) => `SHEET.${name}`);
    const program = called
      .replace('SHEET.SQRT(', 'SHEET.SQRT([')
      .replace(/\)$/, called.includes('SQRT') ? '])' : ')');
    const value: unknown = new Function('SHEET', 'errors', `return ${program}`)(SHEET, errors);
    expect(value).toBeCloseTo(summarize(measure, errors), 15);
  }
});
