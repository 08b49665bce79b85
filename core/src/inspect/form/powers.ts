import { type Amount, isZero, NOTHING, opposite, plus, times, UNIT } from './amount.ts';

/** A sum of amounts times whole powers of h, by the power. */
export type Powers = ReadonlyMap<number, Amount>;

export const NO_POWERS: Powers = new Map();

export function monomial(amount: Amount, power = 0): Powers {
  return isZero(amount) ? NO_POWERS : new Map([[power, amount]]);
}

export const ONE_POWER = monomial(UNIT);

export function addPowers(a: Powers, b: Powers): Powers {
  if (a.size === 0) return b;
  const sum = new Map(a);
  for (const [power, amount] of b) {
    const total = plus(sum.get(power) ?? NOTHING, amount);
    if (isZero(total)) sum.delete(power);
    else sum.set(power, total);
  }
  return sum;
}

export function multiplyPowers(a: Powers, b: Powers): Powers {
  let product = NO_POWERS;
  for (const [p, x] of a) for (const [q, y] of b) product = addPowers(product, monomial(times(x, y), p + q));
  return product;
}

export function oppositePowers(a: Powers): Powers {
  return new Map([...a].map(([power, amount]) => [power, opposite(amount)]));
}

/** The one term of a sum that has no other; null for none or several. */
export function soleTerm(a: Powers): { readonly power: number; readonly amount: Amount } | null {
  const [first, second] = a;
  if (first === undefined || second !== undefined) return null;
  return { power: first[0], amount: first[1] };
}
