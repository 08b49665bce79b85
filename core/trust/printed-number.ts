const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** A number as it is printed: `1,200`, `0.25`, `2.36×10⁻¹⁴`; and the unit of its last digit. */
export function readPrinted(text: string): { readonly value: number; readonly unit: number } {
  const [, mantissa = '', exponent = ''] =
    /^(-?[\d,.]+(?:e[+-]?\d+)?)(?:×10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+))?$/u.exec(text) ?? [];
  const power = Number(
    Array.from(exponent, (c) => (c === '⁻' ? '-' : String(RAISED.indexOf(c)))).join('') || '0',
  );
  const plain = mantissa.replaceAll(',', '');
  const [digits = '', scale = '0'] = plain.split('e');
  const decimals = digits.split('.')[1]?.length ?? 0;
  return {
    value: Number(`${digits}e${Number(scale) + power}`),
    unit: Number(`1e${Number(scale) + power - decimals}`),
  };
}

/** Whether a printed number is another one, rounded: off by no more than half a unit of its last digit, or by so many units. */
export function within(text: string, value: number, units = 0.5): boolean {
  const { value: read, unit } = readPrinted(text);
  // a quantity without decimals is cut to three digits; a count is printed whole
  const isCut = Number.isInteger(read) && Math.abs(read) >= 100 && !Number.isInteger(value);
  const cut = isCut ? 5e-3 * Math.abs(read) : 0;
  return Math.abs(read - value) <= Math.max(units * unit, cut) * (1 + 1e-9);
}
