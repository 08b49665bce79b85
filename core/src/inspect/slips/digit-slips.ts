import { walk } from '../../formula/expression.ts';
import { type Method, valuesOf } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { counted, powerText } from '../../text/number-text.ts';
import type { Repair, Span } from '../../text/place.ts';
import { readLinear } from '../form/read-linear.ts';
import { type ProvedOrder, proveOrder } from '../order/prove-order.ts';
import { roundedDecimals, type WithinDigits } from '../order/within-digits.ts';
import { bracketed, simplestFraction } from './fraction-text.ts';
import type { Slip } from './slip.ts';

/** Every rounded decimal of a text, wherever it is typed, in the order of the text. */
function placesOf(method: Method): readonly { readonly at: Span; readonly value: number }[] {
  const values = new Set(roundedDecimals(method).map(({ value }) => value));
  const found: { readonly at: Span; readonly value: number }[] = [];
  for (const statement of method.statements)
    for (const formula of valuesOf(statement))
      walk(formula, (node) => {
        if (node.kind === 'number' && values.has(node.value)) found.push({ at: node.at, value: node.value });
      });
  return found.sort((a, b) => a.at.from - b.at.from);
}

/** One change of the text that puts a fraction in the place of every rounded decimal, where that proves the order. */
function fractionRepair(method: Method, order: number): Repair | null {
  const fractions = new Map(
    roundedDecimals(method).map(({ value, halfUnit }) => [value, simplestFraction(value, 2 * halfUnit)]),
  );
  const places = placesOf(method);
  const [first, last] = [places[0], places.at(-1)];
  if (first === undefined || last === undefined) return null;
  let text = '';
  let from = first.at.from;
  for (const { at, value } of places) {
    const fraction = fractions.get(value);
    if (fraction == null) return null;
    text += method.text.slice(from, at.from) + bracketed(fraction.text, method, at);
    from = at.to;
  }
  const whole = method.text.slice(0, first.at.from) + text + method.text.slice(last.at.to);
  const reading = parseMethod(whole);
  const linear = reading.ok ? readLinear(reading.value) : null;
  if (linear === null || 'why' in linear) return null;
  const proof = proveOrder(linear) ?? null;
  const isProved = proof !== null && proof.order >= order && proof.zero?.stable !== false;
  return isProved ? { from: first.at.from, to: last.at.to, text } : null;
}

/** Decimals that lower the order of the text taken exactly, with one repair for all of them where fractions are meant. */
export function digitSlips(method: Method, exact: ProvedOrder, within: WithinDigits | null): readonly Slip[] {
  const [first] = placesOf(method);
  if (within === null || first === undefined) return [];
  const { proof, defect, digits } = within;
  const repair = fractionRepair(method, proof.order);
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
