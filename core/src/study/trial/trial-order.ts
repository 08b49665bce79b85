import { attempt } from '../../text/refusal.ts';
import { ln } from '../../elementary/logarithm.ts';
import { some } from '../../formula/expression.ts';
import { inspectMethod } from '../../inspect/inspect-method.ts';
import type { ProvedOrder } from '../../inspect/order/prove-order.ts';
import type { WithinDigits } from '../../inspect/order/within-digits.ts';
import { type Method, typesDerivatives } from '../../method/method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import type { Problem } from '../../problem/problem.ts';
import { compileWithStart } from '../../compile/compile-with-start.ts';
import type { CompiledRun } from '../../compile/compile.ts';
import { exactSolution } from '../../run/exact-solution.ts';
import { layGrid } from '../../run/grid.ts';
import { integrate } from '../../run/integrate.ts';
import { memoize } from '../../text/memoize.ts';
import { norm } from '../../run/norm.ts';

/**
 * What a formula promises: an order, that its errors grow as h falls, or nothing that could be said. It is proved from
 * the text where the form of the formula is known, and else tried on a test system with a known solution.
 */
export type TrialOrder =
  | { readonly kind: 'order'; readonly order: number; readonly by: 'proof' | 'trial' }
  | { readonly kind: 'diverges' }
  | { readonly kind: 'unknown' };

function read(text: string): Problem {
  const reading = parseProblem(text);
  if (!reading.ok) throw new Error(`a built-in problem cannot be read: ${JSON.stringify(reading.errors)}`);
  return reading.value;
}

/**
 * Nonlinear, coupled, with time in the right-hand sides, so that no condition of order is satisfied by accident; every
 * term comes with its value along the solution taken off.
 */
const FIRST = `u' = cos(t) + (u*w - (2 + sin(t))*exp(-t/2))/2 - (u^2 - (2 + sin(t))^2)/6 + t*(w^2 - exp(-t))/8
w' = -exp(-t/2)/2 - (w^2 - exp(-t))/3 - (u*w - (2 + sin(t))*exp(-t/2))/7 + (u^3 - (2 + sin(t))^3)/90
u(0) = 2
w(0) = 1
0 <= t <= 3
u(t) = 2 + sin(t)
w(t) = exp(-t/2)`;

/** The same for one equation, where a method is for no other. */
const ONE = `u' = cos(t) + (u^2 - (2 + sin(t))^2)/6 - t*(u - 2 - sin(t))/3 - (u^3 - (2 + sin(t))^3)/40
u(0) = 2
0 <= t <= 3
u(t) = 2 + sin(t)`;

function second(damping: string): string {
  return `q'' = -sin(t) - (q - sin(t)) ${damping} + (q^2 - sin(t)^2)*(1 + t)/6
q(0) = 0
q'(0) = 1
0 <= t <= 3
q(t) = sin(t)`;
}

const SECOND = second("- (q*q' - sin(t)*cos(t))/5");
/** Some methods for x'' = a have a higher order where a does not hold the velocity. */
const FREE = second('');

function holdsVelocity(problem: Problem): boolean {
  return problem.unknowns.some(({ highest }) =>
    some(highest, (node) => (node.kind === 'name' || node.kind === 'indexed') && node.primes === 1),
  );
}

/** Numbers of steps, by the root of two. */
const COUNTS = [4, 6, 8, 11, 16, 23, 32, 45, 64, 91, 128, 181, 256, 362, 512];
/** Below this an error is mostly rounding. */
const CLEAR = 2e-13;
/** How near to a whole number an observed order must be. */
const NEAR = 0.15;

function errorAfter(run: CompiledRun, steps: number): number {
  const { problem } = run;
  const { values, stopped } = integrate(run, layGrid(problem.start, problem.end, { steps }));
  if (stopped !== null) return Infinity;
  const exact = exactSolution(problem);
  return norm(values.map((value, j) => value - exact.value(j, problem.end)));
}

function tryOut(text: string, method: Method): TrialOrder {
  const compiled = attempt(() =>
    compileWithStart(read(text), method, { find: () => null, instead: 'exact' }),
  );
  if (!compiled.ok) return { kind: 'unknown' };
  const run = compiled.value;
  const counts = COUNTS.filter((steps) => steps > method.depth);
  const errors: number[] = [];
  let before: number | null = null;
  let growing = 0;
  for (const [i, steps] of counts.entries()) {
    const error = errorAfter(run, steps);
    errors.push(error);
    const coarser = errors[i - 2];
    if (coarser === undefined || !Number.isFinite(coarser)) continue;
    if (error < CLEAR) break;
    const order = ln(coarser / error) / ln(steps / counts[i - 2]!);
    growing = !Number.isFinite(order) || order < -0.5 ? growing + 1 : 0;
    const whole = Math.round(order);
    const isNear = Math.abs(order - whole) <= NEAR && whole >= 0;
    if (isNear && whole === before) return { kind: 'order', order: whole, by: 'trial' };
    before = isNear ? whole : null;
  }
  if (growing > 1) return { kind: 'diverges' };
  return before === null ? { kind: 'unknown' } : { kind: 'order', order: before, by: 'trial' };
}

const known = memoize<TrialOrder>(500);

function testProblem(method: Method, problem: Problem): string {
  if (method.oneEquation) return ONE;
  if (method.form === 'first order') return FIRST;
  return holdsVelocity(problem) ? SECOND : FREE;
}

/**
 * The proof of the order for problems such as the given one, within the digits of the method's decimals; null where the
 * form of the formula is not known.
 */
export function proofFor(method: Method, problem: Problem): ProvedOrder | null {
  return digitsFor(method, problem)?.proof ?? exactProofFor(method, problem);
}

function exactProofFor(method: Method, problem: Problem): ProvedOrder | null {
  const { order, orderWithoutVelocity } = inspectMethod(method);
  const isFree = orderWithoutVelocity !== null && !holdsVelocity(problem);
  return isFree ? orderWithoutVelocity : order;
}

/** The order within the digits of decimals, where it is above that of the text taken exactly; null elsewhere. */
export function digitsFor(method: Method, problem: Problem): WithinDigits | null {
  const { withinDigits } = inspectMethod(method);
  return withinDigits?.exact === exactProofFor(method, problem) ? withinDigits : null;
}

/** What the formula of a method promises for problems such as the given one. */
export function expectedOrder(method: Method, problem: Problem): TrialOrder {
  if (typesDerivatives(method)) return { kind: 'unknown' };
  const proof = proofFor(method, problem);
  // what holds up to the highest order that was looked at may hold beyond it
  if (proof !== null && !proof.atLeast)
    return proof.zero?.stable === false
      ? { kind: 'diverges' }
      : { kind: 'order', order: Math.max(0, proof.order), by: 'proof' };
  const text = testProblem(method, problem);
  return known(`${text}\n\n${method.text}`, () => tryOut(text, method));
}
