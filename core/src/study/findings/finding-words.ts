import { significant, stepSizeText } from '../../text/number-text.ts';
import type { RungResult } from '../study-result.ts';

/** A whole number with its thousands apart. */
export function count(n: number): string {
  return n.toLocaleString('en');
}

const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** A quantity to three digits, as it is set in print: 0.0557, 2.36×10⁻¹⁴. */
export function number(value: number): string {
  const [digits = '', exponent] = significant(value, 3).split('e');
  if (exponent === undefined) return digits;
  const raised = String(Math.abs(Number(exponent))).replace(/\d/g, (digit) => RAISED.charAt(Number(digit)));
  return `${digits}×10${exponent.startsWith('-') ? '⁻' : ''}${raised}`;
}

/** A time to as many digits as a reader wants: 0.333, 2. */
export function time(value: number): string {
  return String(Number(value.toPrecision(3)));
}

/** An order with its standard error, to the digits that this allows: 2.00 ± 0.01. */
export function orderText(order: number, standardError: number | null): string {
  if (standardError === null) return order.toFixed(2);
  const digits = standardError < 0.005 ? 3 : standardError < 0.3 ? 2 : 1;
  const unit = Number(`1e-${digits}`);
  return `${order.toFixed(digits)} ± ${(Math.max(1, Math.ceil(standardError / unit - 1e-9)) * unit).toFixed(digits)}`;
}

/** Places of the rungs of which something holds. */
export function indices(rungs: readonly RungResult[], is: (rung: RungResult) => boolean): readonly number[] {
  return rungs.flatMap((rung, i) => (is(rung) ? [i] : []));
}

/** `h = 0.5`, `h = 0.5 and 0.25`, `h = 0.5, 0.25 and two more`. */
export function steps(rungs: readonly RungResult[], which: readonly number[]): string {
  const all = which.map((i) => stepSizeText(rungs[i]!.h));
  const [first, second, ...more] = all;
  if (second === undefined) return `h = ${first ?? ''}`;
  if (more.length === 0) return `h = ${first} and ${second}`;
  return `h = ${first}, ${second} and ${more.length === 1 ? 'one' : more.length} more`;
}

/** What is remarked of the first of some rungs, and how many more it holds for. */
export function remarks(rungs: readonly RungResult[], which: readonly number[]): string {
  const [first, ...more] = which.map((i) => rungs[i]?.remark ?? '');
  if (more.length === 0) return first ?? '';
  return `${first ?? ''}; so it is with ${more.length === 1 ? 'one' : more.length} more`;
}
