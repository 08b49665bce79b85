import { type LinearForm, formKey } from './form.ts';
import { areCoupled, type FormStage, type LinearMethod, needed } from './linear-method.ts';
import { soleTerm } from './powers.ts';

/** What kind of formula a method is. */
export type MethodKind =
  | 'explicit Runge-Kutta'
  | 'diagonally implicit Runge-Kutta'
  | 'implicit Runge-Kutta'
  | 'Rosenbrock'
  | 'explicit linear multistep'
  | 'implicit linear multistep'
  | 'predictor-corrector'
  | 'Taylor'
  | 'with derivatives of f'
  | 'Nystrom'
  | 'multistep for second order';

/** How many steps back a stage is evaluated at a kept value as it is; null where it is not. */
export function keptPlace({ at }: FormStage): number | null {
  const backs = ('y' in at ? [at.y] : [at.x, at.v]).map(soleKept);
  const [back = null] = backs;
  return backs.every((other) => other === back) ? back : null;
}

function soleKept(form: LinearForm): number | null {
  const [term, other] = form.values();
  if (term === undefined || other !== undefined || term.basis.kind !== 'kept') return null;
  const sole = soleTerm(term.factor);
  return sole !== null && sole.power === 0 && sole.amount.value === 1 ? term.basis.back : null;
}

/** Whether a stage is evaluated at the new value itself. */
export function isAtNext({ at, shift }: FormStage, { next }: LinearMethod): boolean {
  return 'y' in at && 'y' in next && shift.value === 1 && formKey(at.y) === formKey(next.y);
}

/** Whether every evaluation is at kept values, or at the new one: then its order needs no trees. */
export function isOnSolution(method: LinearMethod): boolean {
  return method.stages.every(
    (stage) =>
      stage.partial === null &&
      ((keptPlace(stage) !== null && -(keptPlace(stage) ?? 0) === stage.shift.value) ||
        (stage.primes === 0 && isAtNext(stage, method))),
  );
}

/** Whether a stage is a Jacobian, or a derivative by the time, for a linearly implicit formula. */
function isLinearPart({ partial }: FormStage): boolean {
  return partial !== null && partial.times + partial.along.length === 1;
}

/**
 * Whether a one-step formula is linearly implicit: Jacobians of values that hold themselves, and plain evaluations of f that
 * rest on no such value of their own.
 *
 * Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.7.
 */
function isRosenbrock({ stages, depth, next }: LinearMethod): boolean {
  return (
    'y' in next &&
    depth === 0 &&
    stages.some((stage, i) => isLinearPart(stage) && needed(stages, i).has(i)) &&
    stages.every(
      (stage, i) =>
        isLinearPart(stage) || (stage.partial === null && stage.primes === 0 && !needed(stages, i).has(i)),
    )
  );
}

/**
 * Stages of a method as textbooks count them: for a linearly implicit one its evaluations of f.
 *
 * @example countOfStages(inspection.linear!) // 2
 */
export function countOfStages(method: LinearMethod): number {
  const { stages } = method;
  return kindOf(method) === 'Rosenbrock'
    ? stages.filter(({ partial }) => partial === null).length
    : stages.length;
}

/** What kind of formula a linear form is. */
export function kindOf(method: LinearMethod): MethodKind {
  const { stages, depth, next, implicit } = method;
  if (!('y' in next)) return depth === 0 ? 'Nystrom' : 'multistep for second order';
  if (isRosenbrock(method)) return 'Rosenbrock';
  if (stages.some(({ primes, partial }) => primes > 0 || partial !== null))
    return depth === 0 && stages.every((stage) => keptPlace(stage) === 0)
      ? 'Taylor'
      : 'with derivatives of f';
  if (depth > 0) {
    if (!isOnSolution(method)) return 'predictor-corrector';
    return implicit ? 'implicit linear multistep' : 'explicit linear multistep';
  }
  if (!implicit) return 'explicit Runge-Kutta';
  return areCoupled(stages) ? 'implicit Runge-Kutta' : 'diagonally implicit Runge-Kutta';
}
