import { log10 } from '../elementary/logarithm.ts';

/** A number to some significant digits, as a table prints it: 0.0645, 1.05e-5. */
export function significant(value: number, digits: number): string {
  if (value === 0) return '0';
  const magnitude = Math.floor(log10(Math.abs(value)));
  if (magnitude < -3 || magnitude > 6) return value.toExponential(digits - 1);
  return value.toFixed(Math.max(0, digits - 1 - magnitude));
}

/** A step size as short as it can be while it still means the same to a reader: 0.1, 0.03125, 0.142857. */
export function stepSizeText(h: number): string {
  const short = Number(h.toPrecision(6));
  return Math.abs(short - h) <= 1e-12 * Math.abs(h) ? String(short) : h.toPrecision(6);
}
