import { LIBRARY } from '../../method/library/library.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { type Inspection, inspectMethod } from '../inspect-method.ts';
import { amountOf, amountText, fraction, NOTHING } from './amount.ts';
import { multistepText, tableauText } from './grid-text.ts';

function inspect(text: string): Inspection {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(`${text}\n${JSON.stringify(reading.errors)}`);
  return inspectMethod(reading.value);
}

function values(of: unknown): unknown {
  return JSON.parse(
    JSON.stringify(of, (key, value: unknown) =>
      key === 'exact' ? undefined : typeof value === 'bigint' ? 0 : value,
    ),
  );
}

test.each(LIBRARY.map(({ title, text }) => [title, text] as const))(
  '%s as a grid is text again, without loss',
  (_, text) => {
    const { tableau, multistep } = inspect(text);
    if (tableau !== null) {
      const again = inspect(tableauText(tableau)).tableau;
      const flat = (grid: typeof tableau): readonly number[] =>
        [...grid.c, ...grid.A.flat(), ...grid.b].map(({ value }) => value);
      flat(again!).forEach((value, i) => expect(value).toBeCloseTo(flat(tableau)[i]!, 14));
      const fractions = [...tableau.A.flat(), ...tableau.b].every(({ exact }) => exact !== null);
      if (fractions) expect(values(again)).toEqual(values(tableau));
    }
    if (multistep !== null)
      expect(values(inspect(multistepText(multistep, 'RK4')).multistep)).toEqual(values(multistep));
  },
);

test('signs, ones and fractions are written as one writes them', () => {
  const [zero, half] = [NOTHING, fraction(1, 2)];
  expect(
    tableauText({
      c: [zero, half, fraction(1)],
      A: [
        [zero, zero, zero],
        [half, zero, zero],
        [fraction(-1), fraction(2), zero],
      ],
      b: [fraction(1, 6), fraction(2, 3), fraction(1, 6)],
    }),
  ).toBe(
    'k1 = f(t, y)\nk2 = f(t + 1/2*h, y + h*(1/2*k1))\nk3 = f(t + h, y + h*(-k1 + 2*k2))\ny[n+1] = y + h*(1/6*k1 + 2/3*k2 + 1/6*k3)\n',
  );
  expect(
    multistepText({ alpha: [fraction(1)], beta: [fraction(3, 2), fraction(-1, 2)], next: zero }, 'Heun'),
  ).toBe('start with Heun\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])\n');
  expect(amountText(amountOf(0.1))).toBe('1/10');
});
