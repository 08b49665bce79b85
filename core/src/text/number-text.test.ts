import {
  count,
  exponential,
  fixed,
  general,
  mantissaAndExponent,
  rangeText,
  powerOfTen,
  rounded,
  short,
  significant,
  stepSizeText,
  withMinus,
} from './number-text.ts';

test.each([
  [0.06451234, '0.06451'],
  [1.05e-5, '1.050e-5'],
  [17.994, '17.99'],
  [12345.678, '12346'],
  [-0.5, '-0.5000'],
  [0, '0'],
])('%f with four significant digits is %s', (value, text) => {
  expect(significant(value, 4)).toBe(text);
});

test.each([
  [0.1, '0.1'],
  [0.03125, '0.03125'],
  [1 / 3, '0.333333'],
  [2 / 6, '0.333333'],
  [0.1 + 0.2, '0.3'],
  [1e-7, '1e-7'],
])('the step size %f reads %s', (h, text) => {
  expect(stepSizeText(h)).toBe(text);
});
test.each([
  [0, '0'],
  [999, '999'],
  [1000, '1,000'],
  [100_000_000, '100,000,000'],
])('%d is counted as %s', (n, text) => {
  expect(count(n)).toBe(text);
});

test('the minus of a number is a plain hyphen, for terminals and files', () => {
  expect(fixed(-1.005, 2)).toBe('-1.00');
  expect(exponential(-0.00012345, 3)).toBe('-1.23e-4');
  expect(general(-250_000_000_000, 4)).toBe('-2.5e+11');
  expect(withMinus('-1e-5')).toBe('−1e−5');
});

test.each([
  [1 / 3, 3, '0.333'],
  [2, 3, '2'],
  [1e-7, 3, '1e-7'],
  [1234567, 3, '1230000'],
  [-0.1 - 0.2, 6, '-0.3'],
])('%f is at most %d digits as %s', (value, digits, text) => {
  expect(short(value, digits)).toBe(text);
  expect(String(rounded(value, digits))).toBe(text);
});

test.each([
  [9.807e20, '9.807e+20'],
  [5e100, '5e+100'],
  [1200, '1200'],
  [0.5, '0.5'],
  [100, '100'],
])('zeros of a power of ten are no needless zeros: %f is %s', (value, text) => {
  expect(general(value, 4)).toBe(text);
});

test('a mantissa and a power of ten belong together', () => {
  expect(mantissaAndExponent(0.00099999, 3)).toEqual(['1.00', -3]);
  expect(mantissaAndExponent(-31415.9, 4)).toEqual(['-3.142', 4]);
  expect([powerOfTen(-12), powerOfTen(0), powerOfTen(7)]).toEqual(['10⁻¹²', '10⁰', '10⁷']);
});

test('a range has as many digits as tell its ends apart, and its ends are rounded outward', () => {
  expect(rangeText({ value: 1.9984, low: 1.9912, high: 2.0055 })).toBe('1.998 (1.991 to 2.006)');
  expect(rangeText({ value: 4.0041, low: 3.9651, high: 4.0431 })).toBe('4.00 (3.96 to 4.05)');
  expect(rangeText({ value: 8.078, low: 7.688, high: 8.468 })).toBe('8.1 (7.6 to 8.5)');
});
