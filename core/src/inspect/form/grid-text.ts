import { type Amount, exactText, isZero, less, NOTHING } from './amount.ts';
import type { MultistepCoefficients, Tableau } from './tableau.ts';

/** An amount before a name: `2*k1`, `1/3*k1`, `k1`; a double is written with all its digits. */
function factor(amount: Amount, of: string): string {
  const text = amount.exact === null ? String(amount.value) : exactText(amount.exact);
  return text === '1' ? of : `${text}*${of}`;
}

/** A sum of amounts times names, signs written as one writes them; '' for none. */
function sum(parts: readonly { readonly amount: Amount; readonly of: string }[]): string {
  return parts
    .filter(({ amount }) => !isZero(amount))
    .map(({ amount, of }, i) => {
      const isNegative = amount.value < 0;
      const size = isNegative ? less(NOTHING, amount) : amount;
      const sign = i === 0 ? (isNegative ? '-' : '') : isNegative ? ' - ' : ' + ';
      return `${sign}${factor(size, of)}`;
    })
    .join('');
}

/** `h*(...)`, or `h*k1` for one slope; '' for none. */
function step(inner: string): string {
  if (inner === '') return '';
  if (/^k\d+$/.test(inner) || /^f\[.*\]$/.test(inner)) return ` + h*${inner}`;
  return ` + h*(${inner})`;
}

function time(c: Amount): string {
  if (isZero(c)) return 't';
  const isNegative = c.value < 0;
  return `t ${isNegative ? '-' : '+'} ${factor(isNegative ? less(NOTHING, c) : c, 'h')}`;
}

/**
 * The text of a Runge-Kutta method with a tableau: stages k1, k2, ... one per line; stages that wait for one another in one
 * solve line.
 *
 * @param embedded the weights of an embedded formula; null for none
 *
 * @example tableauText(inspection.tableau!).split('\n')[0] // 'k1 = f(t, y)'
 */
export function tableauText({ c, A, b }: Tableau, embedded: readonly Amount[] | null = null): string {
  const name = (j: number): string => `k${j + 1}`;
  const place = (i: number): string =>
    `y${step(sum((A[i] ?? []).map((amount, j) => ({ amount, of: name(j) }))))}`;
  const value = (i: number): string => `f(${time(c[i] ?? NOTHING)}, ${place(i)})`;
  const needs = (i: number, least: number): boolean =>
    (A[i] ?? []).some((amount, j) => j >= least && !isZero(amount));
  const weighted = (weights: readonly Amount[]): string =>
    `y${step(sum(weights.map((amount, j) => ({ amount, of: name(j) }))))}`;
  const next = `y[n+1] = ${weighted(b)}`;
  const second = embedded === null ? [] : [`yhat[n+1] = ${weighted(embedded)}`];
  const stages = Array.from({ length: b.length }, (_, i) => i);
  const waits = stages.some((i) => needs(i, i + 1));
  if (waits)
    return [
      `solve ${stages.map(name).join(', ')} = ${stages.map(value).join(', ')}`,
      next,
      ...second,
      '',
    ].join('\n');
  const lines = stages.map((i) => `${needs(i, i) ? 'solve ' : ''}${name(i)} = ${value(i)}`);
  // stages that the embedded formula alone takes are no part of the step
  const own = embedded === null ? lines.length : b.findLastIndex((weight) => !isZero(weight)) + 1;
  return [...lines.slice(0, own), next, ...lines.slice(own), ...second, ''].join('\n');
}

/**
 * The text of a linear multistep formula; `start` names its starting method.
 *
 * @example multistepText({ alpha: [fraction(1)], beta: [fraction(1)], next: fraction(0) }, null)
 */
export function multistepText({ alpha, beta, next }: MultistepCoefficients, start: string | null): string {
  const kept = (letter: string, j: number): string => {
    if (j > 0) return `${letter}[n-${j}]`;
    return letter === 'y' ? 'y' : 'f[n]';
  };
  const values = sum(alpha.map((amount, j) => ({ amount, of: kept('y', j) })));
  const slopes = sum([
    { amount: next, of: 'f(t + h, y[n+1])' },
    ...beta.map((amount, j) => ({ amount, of: kept('f', j) })),
  ]);
  const line = `${isZero(next) ? '' : 'solve '}y[n+1] = ${values}${step(slopes)}`;
  return `${start === null ? '' : `start with ${start}\n`}${line}\n`;
}
