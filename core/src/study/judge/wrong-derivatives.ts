import { some } from '../../formula/expression.ts';
import { type Method, valuesOf } from '../../method/method.ts';
import type { Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { checkTyped, type TypedCheck } from '../../reference/check-typed.ts';
import { memoize } from '../../text/memoize.ts';

const known = memoize<readonly TypedCheck[]>(4);

/** Derivatives typed by hand that are not those of the right-hand sides. */
export function wrongDerivatives(problem: Problem): readonly TypedCheck[] {
  return problem.typed.length === 0
    ? []
    : known(problemKey(problem), () => checkTyped(problem).filter(({ agrees }) => !agrees));
}

/** The first of them that a method evaluates, as it is written: what theory says of the formula is not so then. */
export function wrongDerivativeIn(method: Method, problem: Problem): string | null {
  const own = wrongDerivatives(problem).find(({ unknown, order }) => {
    const equation = problem.unknowns.find(({ name }) => name === unknown);
    const primes = order - (equation?.order ?? 0);
    return method.statements
      .flatMap(valuesOf)
      .some((value) =>
        some(value, (node) => node.kind === 'call' && /^[fa]$/.test(node.name) && node.primes === primes),
      );
  });
  return own?.derivative ?? null;
}
