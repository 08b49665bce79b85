import type { Method } from '../../method/method.ts';
import { lower } from '../../program/lowering.ts';
import type { Instruction, Program } from '../../program/program.ts';
import type { CompiledRun } from '../../compile/compile.ts';
import { newtonWork, type RunState } from '../../run/integrate.ts';

/** What a run has cost. */
export interface Cost {
  /** Evaluations of f (or a), those of the starting steps and within Newton's method included. */
  readonly f: number;
  /** Evaluations of f', f'', ... in this order, partial derivatives of the same order among them. */
  readonly derivatives: readonly number[];
  /**
   * Iterations of Newton's method; each also forms the Jacobian and solves a linear system, but for those that only
   * halve the correction before.
   */
  readonly newton: number;
  /** Wall-clock time: the only figure of a run that differs from one time to the next. */
  readonly seconds: number;
}

/**
 * Evaluations of f and its derivatives together.
 *
 * @example evaluations(result.methods[0]!.rungs[0]!.cost) // 8
 */
export function evaluations({ f, derivatives }: Cost): number {
  return derivatives.reduce((sum, count) => sum + count, f);
}

/** Evaluations by order of the derivative: f itself first. */
type Counts = number[];

/** Which derivative of f an instruction evaluates: 0 for f itself and for what is typed out, null for none. */
function orderOf(instruction: Instruction): number | null {
  switch (instruction.kind) {
    case 'rhs':
    case 'typed':
      return 0;
    case 'derivative':
      return instruction.order;
    case 'partial':
      return instruction.times + instruction.values;
    case 'combine':
    case 'solve':
      return null;
  }
}

function count(instructions: readonly Instruction[], into: Counts): Counts {
  for (const instruction of instructions) {
    const order = orderOf(instruction);
    if (order !== null) into[order] = (into[order] ?? 0) + 1;
  }
  return into;
}

function perStep(program: Program): { readonly plain: Counts; readonly perIteration: Counts } {
  const plain = count(program.instructions, []);
  const perIteration: Counts = [];
  for (const instruction of program.instructions) {
    if (instruction.kind !== 'solve') continue;
    count(instruction.values, perIteration);
  }
  return { plain, perIteration };
}

/** Evaluations of f and its derivatives a step, and those in one iteration of Newton's method. */
export function nominalEvaluations(method: Method): { readonly plain: number; readonly implicit: number } {
  const { plain, perIteration } = perStep(lower(method));
  // a derivative of order k costs about as much as k^2 evaluations of f
  const weigh = (counts: Counts): number =>
    counts.reduce((sum, evaluated, order) => sum + evaluated * Math.max(1, order * order), 0);
  return { plain: weigh(plain), implicit: weigh(perIteration) };
}

function counts(run: CompiledRun, steps: number, iterations: number): Counts {
  const { plain, perIteration } = perStep(run.program);
  const { depth } = run.program;
  const own = Math.max(0, steps - depth);
  const most = Math.max(plain.length, perIteration.length, 1);
  const total = Array.from(
    { length: most },
    (_, order) => own * (plain[order] ?? 0) + iterations * (perIteration[order] ?? 0),
  );
  // slopes of the starting steps are evaluated to be kept
  if (run.program.presentRhs !== null) total[0] = (total[0] ?? 0) + Math.min(depth, steps);
  return total;
}

/** What a run has cost so far. */
export function costOf(at: RunState, seconds: number): Cost {
  const total: Counts = [0];
  let state: RunState | null = at;
  for (; state !== null; state = state.starter) {
    const below: number = state.starter === null ? 0 : newtonWork(state.starter).iterations;
    counts(state.run, state.n, newtonWork(state).iterations - below).forEach(
      (evaluated, order) => (total[order] = (total[order] ?? 0) + evaluated),
    );
  }
  const [f = 0, ...derivatives] = Array.from({ length: total.length }, (_, order) => total[order] ?? 0);
  return { f, derivatives, newton: newtonWork(at).iterations, seconds };
}
