import type { Method } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { counted, powerText } from '../../text/number-text.ts';
import type { Repair } from '../../text/place.ts';
import { readLinear } from '../form/read-linear.ts';
import { type ProvedOrder, proveOrder } from '../order/prove-order.ts';
import { type RoundedDecimal, roundedDecimals, type WithinDigits } from '../order/within-digits.ts';
import { bracketed, simplestFraction } from './fraction-text.ts';
import type { Slip } from './slip.ts';

/** One change of the text that puts a fraction in the place of every rounded decimal, where that proves the order. */
function fractionRepair(method: Method, decimals: readonly RoundedDecimal[], order: number): Repair | null {
  const [first, last] = [decimals[0], decimals.at(-1)];
  if (first === undefined || last === undefined) return null;
  let text = '';
  let from = first.at.from;
  for (const { at, value, halfUnit } of decimals) {
    const fraction = simplestFraction(value, 2 * halfUnit);
    if (fraction === null) return null;
    text += method.text.slice(from, at.from) + bracketed(fraction.text, method, at);
    from = at.to;
  }
  const whole = method.text.slice(0, first.at.from) + text + method.text.slice(last.at.to);
  const reading = parseMethod(whole);
  const linear = reading.ok ? readLinear(reading.value) : null;
  if (linear === null || 'why' in linear) return null;
  const proof = proveOrder(linear);
  const isProved = proof !== null && proof.order >= order && proof.zero?.stable !== false;
  return isProved ? { from: first.at.from, to: last.at.to, text } : null;
}

/** Decimals that lower the order of the text taken exactly, with one repair for all of them where fractions are meant. */
export function digitSlips(method: Method, exact: ProvedOrder, within: WithinDigits | null): readonly Slip[] {
  const decimals = roundedDecimals(method);
  const [first] = decimals;
  if (within === null || first === undefined) return [];
  const { proof, defect, digits } = within;
  const repair = fractionRepair(method, decimals, proof.order);
  const taken = exact.order < 1 ? 'it is not consistent' : `it has order ${exact.order}`;
  return [
    {
      kind: 'digits',
      message: `the method has order ${proof.order} within the ${counted(digits, 'digit')} of its coefficients; taken exactly ${taken} (defect ${powerText(defect)})`,
      at: first.at,
      repairs: repair === null ? [] : [repair],
    },
  ];
}
