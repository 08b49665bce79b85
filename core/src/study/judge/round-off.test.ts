import { fitRoundOff } from './round-off.ts';

test('the model C h^p + R/h^q is found again, and its least value where its derivative vanishes', () => {
  const fit = { order: 4, constant: 2, standardError: 0, from: 0, to: 3, rungs: [], by: 'rules' as const };
  const floor = [1e-4, 5e-5, 2e-5, 1e-5].map((h) => ({ h, error: 3e-17 / h ** 0.7 }));
  const model = fitRoundOff(fit, floor, 'double')!;
  expect(model.exponent).toBeCloseTo(0.7, 10);
  expect(model.size / 3e-17).toBeCloseTo(1, 8);
  const e = (h: number): number => 2 * h ** 4 + 3e-17 / h ** 0.7;
  expect(model.best.error / e(model.best.h)).toBeCloseTo(1, 8);
  for (const off of [0.97, 1.03]) expect(e(model.best.h * off)).toBeGreaterThan(model.best.error);
  expect(model.double).toEqual(model.best);
  // single precision rounds 2^29 times as coarsely
  expect(model.single.h / model.best.h).toBeCloseTo(2 ** (29 / 4.7), 6);
});
