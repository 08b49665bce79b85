import { inspectedText } from '../../../trust/inspected-text.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { roundedDecimals } from './within-digits.ts';

const RK4 = (write: (value: number) => string): string =>
  `k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h*(${write(1 / 6)}*k1 + ${write(1 / 3)}*k2 + ${write(1 / 3)}*k3 + ${write(1 / 6)}*k4)`;

test.each([4, 6, 10, 16])(
  'weights with %i digits have order 4 within them, and one repair for all',
  (digits) => {
    const text = RK4((value) => value.toPrecision(digits));
    const { order, withinDigits, slips } = inspectedText(text);
    expect(withinDigits).toMatchObject({ digits, proof: { order: 4, atLeast: false } });
    expect(order!.order).toBeLessThan(4);
    // 1/6 is off by a third of a unit of its last digit; the conditions of the first failing order by no more than that
    expect(withinDigits!.defect).toBeGreaterThan(0);
    expect(withinDigits!.defect).toBeLessThan(10 ** -digits);
    const [slip] = slips;
    expect(slip).toMatchObject({ kind: 'digits' });
    const [repair] = slip!.repairs;
    expect(text.slice(0, repair!.from) + repair!.text + text.slice(repair!.to)).toBe(
      RK4((value) => `1/${Math.round(1 / value)}`),
    );
  },
);

test('digits that are cut off count as rounded ones', () => {
  const { withinDigits } = inspectedText(RK4((value) => (Math.floor(value * 1e5) / 1e5).toFixed(5)));
  expect(withinDigits?.proof.order).toBe(4);
});

test.each([
  // ten units of the last digit are a mistake
  RK4((value) => (value < 0.2 ? '0.1667' : '0.3343')),
  // a short decimal is meant as it is
  RK4((value) => (value < 0.2 ? '0.17' : '0.33')),
])('a wrong coefficient is no rounded one: %s', (text) => {
  expect(inspectedText(text).withinDigits).toBeNull();
});

test('multiples of 1/1024 and short decimals are meant as they are', () => {
  const reading = parseMethod(
    'y[n+1] = y + h*(0.125*f(t, y) + 0.0625*f(t, y) + 0.25*f(t, y) + 0.3*f(t, y) + 0.262*f(t, y))',
  );
  expect(reading.ok && roundedDecimals(reading.value)).toEqual([
    { value: 0.262, at: expect.anything(), halfUnit: 5e-4, digits: 3 },
  ]);
});
