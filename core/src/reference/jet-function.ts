import { type Expression } from '../formula/expression.ts';
import { JetCode } from '../formula/jet.ts';
import { literal } from '../formula/javascript.ts';
import type { Problem } from '../problem/problem.ts';
import { generatedFunction } from '../run/generated.ts';
import { Placing } from '../run/rate-leaf.ts';

/**
 * The Taylor coefficients of the solution through (t, y): coefficient k of component j is written to
 * out[k*size + j], for k = 0..order, so that y_j(t + s) is the sum of out[k*size + j]*s^k.
 */
export type JetFunction = (t: number, y: ArrayLike<number>, out: Float64Array) => void;

/** Above this many intermediate values they are kept in an array: a function can hold only so many of its own. */
const MOST_LOCALS = 50_000;

/** Most components for which jets are made: their code is written out component by component. */
export const MOST_JET_COMPONENTS = 1_000;

/**
 * Generates the Taylor coefficients of the solutions of a problem, to any order, as straight-line code.
 * From y' = f(t, y), coefficient k+1 of y is coefficient k of f divided by k+1.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), chapter 13.
 *
 * @throws RangeError for more than MOST_JET_COMPONENTS components
 */
export function jetFunction(problem: Problem, order: number): JetFunction {
  const { size } = problem;
  if (size > MOST_JET_COMPONENTS)
    throw new RangeError(`Taylor series are made for up to ${MOST_JET_COMPONENTS} components`);
  const lines: string[] = [];
  const names = new Map<string, string>();
  const declare = (code: string): string => {
    const known = names.get(code);
    if (known !== undefined) return known;
    const made = `v${names.size}`;
    names.set(code, made);
    lines.push(`const ${made} = ${code};`);
    return made;
  };

  const placing = new Placing(problem);
  const solution: (string | null)[][] = Array.from({ length: size }, (_, j) => [`Y[${j}]`]);
  const jets = problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element) => {
      const leaf = (node: Expression, k: number): string | null => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return null;
        const meaning = placing.of(node, block, element);
        switch (meaning.kind) {
          case 'time':
            return k === 0 ? 't' : k === 1 ? '1' : null;
          case 'constant':
            return k === 0 && meaning.value !== 0 ? literal(meaning.value).text : null;
          case 'component':
            return solution[meaning.place]?.[k] ?? null;
          case 'given':
            return jet.coefficient(meaning.value, k);
        }
      };
      const jet = new JetCode(leaf, declare);
      return { jet, rate: block.rate };
    }),
  );
  solution.forEach((series, j) => series.splice(0, 1, declare(`Y[${j}]`)));
  for (let k = 0; k < order; k += 1) {
    const next = jets.map(({ jet, rate }) => jet.coefficient(rate, k));
    next.forEach((code, j) => {
      solution[j]?.push(code === null ? null : k === 0 ? code : declare(`${code} / ${k + 1}`));
    });
  }
  const outputs = solution.flatMap((series, j) =>
    series.map((code, k) => `OUT[${k * size + j}] = ${code ?? '0'};`),
  );
  const body = [...lines, ...outputs].join('\n');
  if (names.size <= MOST_LOCALS) return generatedFunction(`function (t, Y, OUT) {\n${body}\n}`);
  const kept = body.replace(/^const (v\d+) =/gm, '$1 =').replace(/\bv(\d+)\b/g, 'V[$1]');
  return generatedFunction(
    `(function () { const V = new Float64Array(${names.size}); return function (t, Y, OUT) {\n${kept}\n}; })()`,
  );
}
