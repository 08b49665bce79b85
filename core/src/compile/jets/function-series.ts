import type { Bound, Call } from '../../formula/expression.ts';
import { PlaceError } from '../../text/place.ts';
import { constantNode, operation, type CodeNode, ZERO } from '../nodes/code-node.ts';
import type { RhsLeaf, RhsTree } from '../../program/rhs-tree.ts';
import type { Jets } from './jets.ts';
import {
  type Coefficient,
  convolve,
  derived,
  divided,
  less,
  minus,
  one,
  orZero,
  rooted,
  scaled,
  type Series,
  sum,
} from './series.ts';

type FunctionCall = Call<Bound<RhsLeaf>>;

/** Coefficient k > 0 of a function of one input, from those of the input and of itself below k. */
type Rule = (jets: Jets, x: RhsTree, own: Series, k: number) => Coefficient;

function called(code: string, ...inputs: readonly CodeNode[]): CodeNode {
  return operation({ call: code }, ...inputs);
}

/** The natural logarithm of a node: x c' = x'. */
export function logarithmSeries(jets: Jets, x: RhsTree, own: Series, k: number): Coefficient {
  if (k === 0) return called('ln', jets.zeroth(x));
  return divided(jets.coefficient(x, k), own, jets.series(x, k), k);
}

function scaledLogarithm(divisor: CodeNode): Rule {
  return (jets, x, _, k) => {
    const natural = jets.partner(x, 'ln', k, (j, before) => logarithmSeries(jets, x, before, j))[k] ?? null;
    return natural === null ? null : operation('/', natural, divisor);
  };
}

/** Sine and cosine, or the hyperbolic ones, of a node: made together, each from the other. */
function pair(first: string, second: string, sign: 1 | -1, which: 0 | 1): Rule {
  return (jets, x, _, k) => {
    const inner = jets.series(x, k);
    for (let j = 0; j <= k; j += 1) {
      const make = (code: string, other: Series, of: 1 | -1): Coefficient =>
        j === 0 ? called(code, jets.zeroth(x)) : derived(inner, (i) => other[i], j, of);
      const [a, b] = [jets.partner(x, first, j - 1, none), jets.partner(x, second, j - 1, none)];
      jets.partner(x, first, j, () => make(first, b, 1));
      jets.partner(x, second, j, () => make(second, a, sign));
    }
    return jets.partner(x, which === 0 ? first : second, k, none)[k] ?? null;
  };
}

/** For a series that is there already. */
function none(): Coefficient {
  return null;
}

/** c' = (1 + c^2) a' for the tangent, (1 - c^2) a' for the hyperbolic one. */
function tangent(name: 'tan' | 'tanh'): Rule {
  return (jets, x, own, k) => {
    const factor = jets.partner(x, `${name}'`, k - 1, (j) => {
      const square = convolve(own, own, j);
      return sum([one(j), name === 'tan' ? square : minus(square)]);
    });
    return derived(jets.series(x, k), (j) => factor[j], k);
  };
}

/** v c' = +-a' with v = sqrt(1 - a^2). */
function inverse(sign: 1 | -1): Rule {
  return (jets, x, own, k) => {
    const inside = jets.partner(x, '1-sq', k, (j) => sum([one(j), minus(jets.product(x, x, j))]));
    const root = jets.partner(x, 'sqrt(1-sq)', k, (j, before) =>
      j === 0 ? called('Math.sqrt', orZero(inside[0])) : rootedAlways(inside[j] ?? null, before, j),
    );
    const of = jets.coefficient(x, k);
    return divided(sign === 1 ? of : minus(of), own, root, k);
  };
}

/** As `rooted`, with zero where nothing is known. */
function rootedAlways(a: Coefficient, own: Series, k: number): Coefficient {
  return rooted(a ?? ZERO, own, k);
}

/** c = a^(1/3), as a real power. */
const cubeRoot: Rule = (jets, x, own, k) => {
  const rest = sum(
    Array.from({ length: k }, (_, i) => {
      const j = i + 1;
      return scaled(constantNode(4 * j - 3 * k), jets.coefficient(x, j), own[k - j]);
    }),
  );
  return rest === null ? null : operation('/', rest, operation('*', constantNode(3 * k), jets.zeroth(x)));
};

const RULES: ReadonlyMap<string, { readonly code: string; readonly rule: Rule }> = new Map(
  Object.entries<{ readonly code: string; readonly rule: Rule }>({
    exp: { code: 'exp', rule: (jets, x, own, k) => derived(jets.series(x, k), (j) => own[j], k) },
    ln: { code: 'ln', rule: logarithmSeries },
    log10: { code: 'log10', rule: scaledLogarithm(constantNode(Math.LN10, 'ln(10)')) },
    log2: { code: 'log2', rule: scaledLogarithm(constantNode(Math.LN2, 'ln(2)')) },
    sqrt: { code: 'Math.sqrt', rule: (jets, x, own, k) => rooted(jets.coefficient(x, k), own, k) },
    cbrt: { code: 'cbrt', rule: cubeRoot },
    sin: { code: 'sin', rule: pair('sin', 'cos', -1, 0) },
    cos: { code: 'cos', rule: pair('sin', 'cos', -1, 1) },
    sinh: { code: 'sinh', rule: pair('sinh', 'cosh', 1, 0) },
    cosh: { code: 'cosh', rule: pair('sinh', 'cosh', 1, 1) },
    tan: { code: 'tan', rule: tangent('tan') },
    tanh: { code: 'tanh', rule: tangent('tanh') },
    atan: {
      code: 'atan',
      rule: (jets, x, own, k) => {
        const v = jets.partner(x, '1+sq', k, (j) => sum([one(j), jets.product(x, x, j)]));
        return divided(jets.coefficient(x, k), own, v, k);
      },
    },
    asin: { code: 'asin', rule: inverse(1) },
    acos: { code: 'acos', rule: inverse(-1) },
    abs: {
      code: 'Math.abs',
      rule: (jets, x, _, k) => {
        const of = jets.coefficient(x, k);
        return of === null
          ? null
          : operation({ choose: '<' }, jets.zeroth(x), ZERO, operation('negate', of), of);
      },
    },
    sign: { code: 'Math.sign', rule: none },
    floor: { code: 'Math.floor', rule: none },
  }),
);

/** (x^2 + y^2) c' = x y' - y x'. */
function angle(jets: Jets, node: FunctionCall, [y, x]: readonly [RhsTree, RhsTree], k: number): Coefficient {
  if (k === 0) return called('atan2', jets.zeroth(y), jets.zeroth(x));
  const radius = jets.partner(node, 'radius', k, (j) => sum([jets.product(x, x, j), jets.product(y, y, j)]));
  const above = derived(jets.series(y, k), (j) => jets.coefficient(x, j), k);
  const below = derived(jets.series(x, k), (j) => jets.coefficient(y, j), k, -1);
  return divided(jets.kept(sum([above, below])), jets.own(node), radius, k);
}

function remainder(jets: Jets, x: RhsTree, y: RhsTree, k: number): Coefficient {
  const [x0, y0] = [jets.zeroth(x), jets.zeroth(y)];
  if (k === 0) return called('mod', x0, y0);
  const [a, b] = [jets.coefficient(x, k), jets.coefficient(y, k)];
  const whole = called('Math.floor', operation('/', x0, y0));
  return b === null ? a : less(a ?? ZERO, operation('*', whole, b));
}

function extreme(jets: Jets, node: FunctionCall, k: number): Coefficient {
  const relation = node.name === 'min' ? '<=' : '>=';
  const [first, ...rest] = node.inputs;
  if (first === undefined) return null;
  let chosen = jets.coefficient(first, k);
  let value = jets.zeroth(first);
  for (const other of rest) {
    const [mine, own] = [jets.coefficient(other, k), jets.zeroth(other)];
    chosen =
      chosen === null && mine === null
        ? null
        : operation({ choose: relation }, value, own, orZero(chosen), orZero(mine));
    value = orZero(jets.kept(called(`Math.${node.name}`, value, own)));
  }
  return chosen;
}

/**
 * Coefficient k of a function of the notation.
 *
 * @throws PlaceError for a call that has no Taylor series here
 */
export function functionSeries(jets: Jets, node: FunctionCall, k: number): Coefficient {
  const [x, y] = node.inputs;
  const known = node.primes === 0 ? RULES.get(node.name) : undefined;
  if (known !== undefined && x !== undefined)
    return k === 0 ? called(known.code, jets.zeroth(x)) : known.rule(jets, x, jets.own(node), k);
  if (node.primes === 0 && (node.name === 'min' || node.name === 'max')) return extreme(jets, node, k);
  if (x !== undefined && y !== undefined && node.name === 'atan2') return angle(jets, node, [x, y], k);
  if (x !== undefined && y !== undefined && node.name === 'mod') return remainder(jets, x, y, k);
  throw new PlaceError(node.at, `${node.name} has no Taylor series here`);
}
