import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Decimal } from 'decimal.js';
import { type Rounding, ROUNDINGS } from './decimal-precision.ts';
import { decimalText } from './decimal-text.ts';
import { decimalsOf } from './decimals.ts';

/** Functions, their inputs, and 250 digits of their values, computed by a library of arbitrary precision. */
const KNOWN: readonly (readonly [name: string, inputs: readonly string[], value: string])[] = JSON.parse(
  readFileSync(join(__dirname, 'known-values.json'), 'utf8'),
);

/** A number as an integer and a power of ten, without zeros at its end. */
function parts(text: string): { readonly digits: bigint; readonly exponent: number } {
  const [mantissa = '', power = '0'] = text.toLowerCase().split('e');
  const [whole = '', decimals = ''] = mantissa.split('.');
  let digits = BigInt(`${whole}${decimals}`);
  let exponent = Number(power) - decimals.length;
  while (digits !== 0n && digits % 10n === 0n) {
    digits /= 10n;
    exponent += 1;
  }
  return { digits, exponent: digits === 0n ? 0 : exponent };
}

/** A decimal number rounded digit by digit, without decimal.js. */
function roundedText(text: string, digits: number, rounding: Rounding): string {
  const { digits: all, exponent } = parts(text);
  const size = all < 0n ? -all : all;
  const more = size.toString().length - digits;
  if (more <= 0) return canonical(text);
  const unit = 10n ** BigInt(more);
  const [kept, rest] = [size / unit, size % unit];
  const isTie = 2n * rest === unit;
  const isUp =
    rounding !== 'chop' && (2n * rest > unit || (isTie && (rounding === 'half-up' || kept % 2n === 1n)));
  return canonical(`${all < 0n ? '-' : ''}${kept + (isUp ? 1n : 0n)}e${exponent + more}`);
}

function canonical(text: string): string {
  const { digits, exponent } = parts(text);
  return `${digits}e${exponent}`;
}

test.each(ROUNDINGS)('functions of the notation to the last digit, rounded %s', (rounding) => {
  const off = KNOWN.flatMap(([name, inputs, value]) =>
    [4, 6, 15, 34, 50, 100].flatMap((digits) => {
      const decimals = decimalsOf({ digits, rounding, rounded: 'operations' });
      const found = decimals.call(
        name,
        inputs.map((input) => decimals.typed(input)),
      );
      // as in the specification of decimal arithmetic
      const expected = roundedText(value, digits, name === 'sqrt' ? 'half-even' : rounding);
      return canonical(decimalText(found)) === expected
        ? []
        : [`${name}(${inputs.join(', ')}) to ${digits}: ${decimalText(found)}, not ${expected}`];
    }),
  );
  expect(off).toEqual([]);
});

test('the rounding of this test is that of numbers that are known', () => {
  expect(roundedText('1.2345', 4, 'half-even')).toBe(canonical('1.234'));
  expect(roundedText('1.2345', 4, 'half-up')).toBe(canonical('1.235'));
  expect(roundedText('-1.23499', 4, 'chop')).toBe(canonical('-1.234'));
  expect(roundedText('9.9996', 4, 'half-even')).toBe(canonical('10'));
});

test('functions at values that are exact', () => {
  for (const rounding of ROUNDINGS) {
    const decimals = decimalsOf({ digits: 5, rounding, rounded: 'operations' });
    const called = (name: string, ...inputs: readonly string[]): string =>
      decimalText(
        decimals.call(
          name,
          inputs.map((input) => decimals.typed(input)),
        ),
      );
    expect(called('exp', '0')).toBe('1');
    expect(called('ln', '1')).toBe('0');
    expect(called('log10', '1000')).toBe('3');
    expect(called('log2', '1024')).toBe('10');
    expect(called('cbrt', '27')).toBe('3');
    expect(called('pow', '1.5', '4')).toBe('5.0625');
    expect(called('pow', '4', '0.5')).toBe('2');
    expect(called('sin', '0')).toBe('0');
    expect(called('atan2', '0', '1')).toBe('0');
    expect(called('mod', '-7', '2')).toBe('1');
    expect(called('floor', '-1.5')).toBe('-2');
    expect([called('min', '2', '1', '3'), called('max', '2', '1', '3')]).toEqual(['1', '3']);
    expect([called('sign', '-0.2'), called('abs', '-0.2')]).toEqual(['-1', '0.2']);
  }
});

test('a tie that the function itself gives is rounded as asked', () => {
  // 1.5^4 = 5.0625, 0.5^5 = 0.03125
  const rounded = (rounding: Rounding): string => {
    const decimals = decimalsOf({ digits: 4, rounding, rounded: 'operations' });
    return decimalText(decimals.call('pow', [decimals.typed('1.5'), decimals.typed('4')]));
  };
  expect([rounded('half-even'), rounded('half-up'), rounded('chop')]).toEqual(['5.062', '5.063', '5.062']);
});

test('a result next to a number of few digits is cut off below it, not at it', () => {
  const decimals = decimalsOf({ digits: 6, rounding: 'chop', rounded: 'operations' });
  const called = (name: string, input: string): string =>
    decimalText(decimals.call(name, [decimals.typed(input)]));
  expect(called('cos', '1e-6')).toBe('0.999999');
  expect(called('exp', '-1e-20')).toBe('0.999999');
  expect(called('tanh', '40')).toBe('0.999999');
  expect(called('exp', '1e-20')).toBe('1');
});

test('what has no value is no number', () => {
  const decimals = decimalsOf({ digits: 10, rounding: 'half-even', rounded: 'operations' });
  const called = (name: string, input: string): string =>
    decimalText(decimals.call(name, [decimals.typed(input)]));
  expect(['ln', 'sqrt', 'asin', 'acos'].map((name) => called(name, '-2'))).toEqual(Array(4).fill('NaN'));
  expect(called('ln', '0')).toBe('-Infinity');
  expect(called('sin', '1e2000')).toBe('NaN');
  expect(called('nothing', '1')).toBe('NaN');
});

test('numbers are those of the text: 0.1 is 0.1, and no digit of a long one is lost', () => {
  const decimals = decimalsOf({ digits: 4, rounding: 'half-even', rounded: 'operations' });
  expect(decimalText(decimals.fromDouble(0.1))).toBe('0.1');
  expect(decimalText(decimals.number({ value: 0.1, digits: '0.10000000000000000001' }))).toBe(
    '0.10000000000000000001',
  );
  // 22! is a double, but its shortest text is not all of it
  expect(decimalText(decimals.fromDouble(1124000727777607680000))).toBe('1.12400072777760768e+21');
  expect(decimalText(decimals.constant('pi'))).toBe('3.142');
  expect(decimals.constant('nothing').isNaN()).toBe(true);
});

test('where stored values alone are rounded, operations are not', () => {
  const decimals = decimalsOf({ digits: 3, rounding: 'chop', rounded: 'stored' });
  const third = decimals.operate('/', decimals.one, decimals.typed('3'));
  expect(decimalText(third)).toBe('0.33333333333333333333333');
  expect(decimalText(decimals.stored(third))).toBe('0.333');
  expect(decimalText(decimals.rounded(new Decimal('2.9999')))).toBe('2.99');
});

test.each([
  ['123456789012345678901', '123456789012345678901'],
  ['1e21', '1e+21'],
  ['1.5e-7', '0.00000015'],
  ['1.5e-8', '1.5e-8'],
  ['-0.25', '-0.25'],
])('%s is written %s', (value, text) => {
  expect(decimalText(new Decimal(value))).toBe(text);
});
