import { type Amount, amountText, areEqual, isZero, UNIT } from '../form/amount.ts';

/** `h`, `h/2`, `2/3*h`; 0 for none. */
export function multipleOfH(amount: Amount): string {
  if (isZero(amount)) return '0';
  if (areEqual(amount, UNIT)) return 'h';
  const text = amountText(amount);
  return text.startsWith('1/') ? `h/${text.slice(2)}` : `${text}*h`;
}
