import { rounded } from '../../text/number-text.ts';
import { walk } from '../../formula/expression.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { givenBy, givenText, type Method, valuesOf } from '../../method/method.ts';
import { type Amount, amountText, areEqual, NOTHING, plus, UNIT } from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { readLinear } from '../form/read-linear.ts';
import { soleTerm } from '../form/powers.ts';
import { movedBy } from '../order/step-series.ts';
import { type ProvedOrder, proveOrder } from '../order/prove-order.ts';
import { sizeOf } from '../stability/complex.ts';
import { multipleOfH } from './multiple-of-h.ts';
import type { Slip } from './slip.ts';

/** Stages whose time and value are shifted by different parts of the step. */
export function shiftSlips(linear: LinearMethod): readonly Slip[] {
  return linear.stages.flatMap((stage, i): readonly Slip[] => {
    const { at, shift, span, name, partial } = stage;
    const form = 'y' in at ? at.y : at.x;
    // derivatives move a value by more than its slopes say
    const isPlain = [...form.values()].every(({ basis }) => {
      const other = basis.kind === 'stage' ? linear.stages[basis.stage] : undefined;
      return other === undefined || (other.primes === 0 && other.partial === null);
    });
    if (partial !== null || !isPlain) return [];
    const moved = movedBy(form, linear);
    if (areEqual(moved, shift)) return [];
    const what = name ?? `evaluation ${i + 1}`;
    return [
      {
        kind: 'shift',
        message: `${what} is evaluated at time t + ${multipleOfH(shift)}, but at a value advanced by ${multipleOfH(moved)}`,
        at: span,
        repairs: [],
      },
    ];
  });
}

function sumOf(form: LinearForm, which: 'kept' | 'stage'): Amount {
  let sum = NOTHING;
  for (const { basis, factor } of form.values())
    if (basis.kind === which) sum = plus(sum, soleTerm(factor)?.amount ?? NOTHING);
  return sum;
}

/** Kept values, or slopes, whose factors do not sum to what a constant, or a straight line, needs. */
export function weightSlips(linear: LinearMethod): readonly Slip[] {
  const line = linear.lines.find(({ name }) => name === 'y[n+1]');
  if (line === undefined || !('y' in linear.next)) return [];
  const kept = sumOf(linear.next.y, 'kept');
  if (!areEqual(kept, UNIT))
    return [
      {
        kind: 'weights',
        message: `the coefficients of y, y[n-1], ... sum to ${amountText(kept)} and must sum to 1: a constant solution is not reproduced`,
        at: line.span,
        repairs: [],
      },
    ];
  const moved = movedBy(linear.next.y, linear);
  if (linear.depth > 0 || linear.stages.some(({ primes, partial }) => primes > 0 || partial !== null))
    return [];
  if (areEqual(moved, UNIT)) return [];
  return [
    {
      kind: 'weights',
      message: `the weights of the slopes sum to ${amountText(moved)} and must sum to 1: a linear solution is not reproduced`,
      at: line.span,
      repairs: [],
    },
  ];
}

/** Names that a line gives and nothing takes. */
export function unusedNames(method: Method): ReadonlySet<string> {
  const used = new Set<string>();
  for (const statement of [...method.statements, ...(method.embedded?.lines ?? [])])
    for (const value of valuesOf(statement)) {
      const own = new Set(statement.kind === 'solve' ? [] : givenBy(statement).map(givenText));
      walk(value, (node) => {
        if (node.kind === 'name' && !own.has(node.name)) used.add(node.name);
        if (node.kind === 'call') used.add(node.name);
      });
    }
  const given = method.statements.flatMap((statement) =>
    givenBy(statement).flatMap((one) => (one.kind === 'name' ? [one.name] : [])),
  );
  return new Set(given.filter((name) => !used.has(name)));
}

/** Names that are never used, each where it is given. */
export function unusedSlips(method: Method): readonly Slip[] {
  const unused = unusedNames(method);
  return method.statements.flatMap((statement): readonly Slip[] =>
    givenBy(statement).flatMap((given) => {
      if (given.kind === 'next' || !unused.has(given.name)) return [];
      const isPrediction = method.depth > 0 && statement.kind === 'let' && statement.shape === 'vector';
      return [
        {
          kind: 'unused',
          message: isPrediction
            ? `${given.name} is never used: the formula below does not use this predictor`
            : `${given.name} is never used`,
          at: statement.at,
          repairs: [],
        },
      ];
    }),
  );
}

/** A starting method that is missing, has too low an order, or is a multistep method itself. */
export function startSlips(method: Method, proof: ProvedOrder | null): readonly Slip[] {
  const { startWith, depth } = method;
  if (proof === null) return [];
  if (startWith === null) return depth === 0 ? [] : missingStart(method, proof);
  const starter = findInLibrary(startWith.name);
  if (starter === null) return [];
  if (depth === 0)
    return [
      {
        kind: 'start',
        message: `this is a one-step method and needs no starting method ${startWith.name}`,
        at: startWith.at,
        repairs: [],
      },
    ];
  if (starter.depth > 0)
    return [
      {
        kind: 'start',
        message: `${startWith.name} is a multistep method itself and cannot be the starting method`,
        at: startWith.at,
        repairs: [],
      },
    ];
  const linear = readLinear(starter);
  const own = 'why' in linear ? null : proveOrder(linear);
  if (own === null || own.order >= proof.order - 1) return [];
  return [
    {
      kind: 'start',
      message: `the starting method ${startWith.name} has order ${own.order}; this method has order ${proof.order} and needs a starting method of order at least ${proof.order - 1}`,
      at: startWith.at,
      repairs: [],
    },
  ];
}

/** A multistep method that does not name a starting method. */
function missingStart(method: Method, { order }: ProvedOrder): readonly Slip[] {
  const line = method.statements[0];
  if (line === undefined || order < 1) return [];
  const starter = order <= 2 ? 'Heun' : order <= 4 ? 'RK4' : order <= 6 ? 'RK6' : 'RK8';
  return [
    {
      kind: 'start',
      message: `the starting method is missing: the exact solution gives the starting values where there is one; otherwise write start with ${starter}`,
      at: line.at,
      repairs: [{ from: 0, to: 0, text: `start with ${starter}\n` }],
    },
  ];
}

/** A formula whose own errors grow as h falls. */
export function growthSlips(method: Method, proof: ProvedOrder | null): readonly Slip[] {
  const zero = proof?.zero;
  const line = method.statements.at(-1);
  if (zero == null || zero.stable || line === undefined || proof === null || proof.order < 0) return [];
  const largest = zero.roots.reduce((most, root) => (sizeOf(root) > sizeOf(most) ? root : most));
  const size = rounded(sizeOf(largest), 6);
  const isOutside = size > 1 + 1e-6;
  return [
    {
      kind: 'growing',
      message: isOutside
        ? `an error is multiplied by ${size} per step for every h: the method does not converge`
        : 'an error grows with the number of steps for every h (a double root on the unit circle): the method does not converge',
      at: line.at,
      repairs: [],
    },
  ];
}
