import { lower } from '../../program/lowering.ts';
import type { Method } from '../../method/method.ts';
import type { Keep, StepRoutine } from './language.ts';
import type { RhsContext } from './rhs-lines.ts';
import { keptName, StepWriter } from './step-writer.ts';

/** Which routine is written: its own name, and the names that it must leave alone. */
export interface RoutineRequest {
  readonly name: string;
  readonly title: string;
  readonly method: Method;
  readonly taken: readonly string[];
}

/**
 * One step of a method as lines: its stages under their own names, what it keeps, what comes next.
 *
 * @param context of the problem; where it has one component vectors are numbers
 * @param width elements of each vector
 * @throws Refusal for larger systems that would have to be solved or derived, and for implicit formulas in x and v
 */
export function stepRoutine(
  { name, title, method, taken }: RoutineRequest,
  context: RhsContext,
  width: number,
): StepRoutine {
  const program = lower(method, context.isOne && method.form === 'first order');
  const writer = new StepWriter(context, program, width, taken);
  const body = writer.body();
  const kept = [...program.kept]
    .sort((a, b) => b.back - a.back)
    .map(({ of, back }): Keep => ({
      name: keptName(of, back),
      from: back > 1 ? keptName(of, back - 1) : of === 'f' ? keptName('f', 0) : of,
    }));
  const next = program.next.map((register) => writer.text(register));
  const { vectors, arrays, numbers, rooms, usesNumber, solves } = writer;
  return {
    name,
    title,
    text: method.text,
    vectors,
    kept,
    arrays,
    numbers,
    rooms,
    solves,
    body,
    next,
    usesNumber,
  };
}
