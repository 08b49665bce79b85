import { fitOrder, type LeftOut, type WindowPoint, windowOf } from './window.ts';

const UNIT = 2 ** -53;

function points(list: readonly (readonly [h: number, error: number | null])[]): WindowPoint[] {
  return list.map(([h, error]) => ({
    h,
    steps: Math.round(1 / h),
    error,
    stopped: error === null,
    nonFinite: error === null,
    struck: false,
    otherTime: false,
    large: false,
    rounding: UNIT * Math.sqrt(1 / h),
    reference: 0,
    defect: 0,
  }));
}

function kinds(out: readonly (LeftOut | null)[]): string {
  return out.map((one) => one?.kind ?? 'counts').join(', ');
}

test('coarse rungs off the line, the floor and runs that left the numbers do not count; the order of the ladder is free', () => {
  const list = [
    [1, null],
    [0.5, 40],
    ...[0.25, 0.125, 0.0625, 0.03125].map((h) => [h, 3e-7 * h ** 4] as const),
    [1 / 64, 4e-15],
    [1 / 128, 5e-16],
  ] as const;
  const out = windowOf(points(list), null);
  expect(kinds(out)).toBe('stopped, coarse, counts, counts, counts, counts, floor, floor');
  const turned = windowOf(points([...list].reverse()), null);
  expect(kinds([...turned].reverse())).toBe(kinds(out));
});

test('coarse rungs are held against the expansion of the finer ones, not against a line', () => {
  // ln e = ln C + 2 ln h + 3 h: far from a line at h = 0.4, and yet on the expansion
  const list = [0.8, 0.4, 0.2, 0.1, 0.05, 0.025].map((h) => [h, h ** 2 * Math.exp(1.5 * h)] as const);
  expect(kinds(windowOf(points(list), null))).toBe('coarse, counts, counts, counts, counts, counts');
  const off = list.map(([h, e], i) => [h, i === 1 ? 2 * e : e] as const);
  expect(kinds(windowOf(points(off), null))).toBe('coarse, coarse, counts, counts, counts, counts');
});

test('a third off the expansion is too far, and a tenth is not', () => {
  const list = [0.4, 0.2, 0.1, 0.05, 0.025].map((h) => [h, h ** 2 * Math.exp(0.5 * h)] as const);
  const by = (factor: number): string =>
    kinds(windowOf(points(list.map(([h, e], i) => [h, i === 0 ? factor * e : e] as const)), null));
  expect(by(1.33)).toBe('coarse, counts, counts, counts, counts');
  expect(by(1.1)).toBe('counts, counts, counts, counts, counts');
});

test('errors above rounding by chance, behind others that are not, do not count', () => {
  const list = [0.4, 0.2, 0.1, 0.05, 0.025, 0.0125].map((h, i) => {
    const rounding = UNIT * Math.sqrt(1 / h);
    return [h, [1e-6, 6e-8, 4e-9, 2 * rounding, 8 * rounding, rounding][i]!] as const;
  });
  expect(kinds(windowOf(points(list), null))).toBe('counts, counts, counts, floor, floor, floor');
});

test('errors larger than the solution do not count, and of rungs on one grid the first does', () => {
  const list = points([0.4, 0.2, 0.1, 0.1, 0.05].map((h) => [h, h ** 2] as const));
  const out = windowOf(
    list.map((point, i) => ({ ...point, large: i === 0 })),
    null,
  );
  expect(kinds(out)).toBe('large, counts, counts, same grid, counts');
});

test('what a person says goes before the rules', () => {
  const list = [0.4, 0.2, 0.1, 0.05].map((h) => [h, h ** 2] as const);
  const struck = points(list).map((point, i) => ({ ...point, struck: i === 1 }));
  expect(kinds(windowOf(struck, null))).toBe('counts, struck, counts, counts');
  expect(kinds(windowOf(struck, { from: 0, to: 2 }))).toBe('counts, struck, counts, outside');
});

test('where no order is seen all count, and the standard error says so', () => {
  const list = [1, 0.5, 0.25, 0.125].map((h, i) => [h, h * (i % 2 === 0 ? 1 : 3)] as const);
  const all = points(list);
  const out = windowOf(all, null);
  expect(kinds(out)).toBe('counts, counts, counts, counts');
  // slope and standard error of a regression, from the sums of a textbook
  const x = list.map(([h]) => Math.log(h));
  const y = list.map(([, e]) => Math.log(e));
  const mean = (v: readonly number[]): number => v.reduce((s, a) => s + a, 0) / v.length;
  const sxx = x.reduce((s, a) => s + a * a, 0) - 4 * mean(x) ** 2;
  const sxy = x.reduce((s, a, i) => s + a * y[i]!, 0) - 4 * mean(x) * mean(y);
  const syy = y.reduce((s, a) => s + a * a, 0) - 4 * mean(y) ** 2;
  const fit = fitOrder(all, out)!;
  expect(fit.order).toBeCloseTo(sxy / sxx, 12);
  expect(fit.standardError).toBeCloseTo(Math.sqrt((syy - sxy ** 2 / sxx) / 2 / sxx), 12);
});
