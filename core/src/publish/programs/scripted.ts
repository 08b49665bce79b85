import type { CodeLine, Condition, Constant, ProgramParts, StepRoutine } from './language.ts';
import {
  assignments,
  type Assignments,
  keepsRhs,
  type Output,
  stepArguments,
  stepOutputs,
} from './routines.ts';

/** The head of a routine and what it returns. */
export interface RoutineHead {
  readonly name: string;
  readonly inputs: readonly string[];
  readonly outputs: readonly Output[];
}

/** How a language whose routines return several values writes what a program is made of. */
export interface Script {
  readonly comment: string;
  /** A constant, before all routines or within the one that makes them. */
  readonly constant: (constant: Constant) => string;
  readonly routine: (head: RoutineHead, lines: readonly string[]) => readonly string[];
  /** Names set to the values of a routine, or one name to a value; new ones may need a declaration. */
  readonly assign: (names: readonly string[], value: string, isNew: boolean) => string;
  /** Lines that make numbers known which are set later, and vectors of zeros. */
  readonly declare: (
    numbers: readonly string[],
    vectors: readonly (readonly [string, number])[],
  ) => readonly string[];
  readonly line: (line: CodeLine, how: Assignments) => readonly string[];
  /** A number 0, or a vector of so many. */
  readonly zeros: (size: number) => string;
  readonly choose: (condition: string, yes: readonly string[], no: readonly string[]) => readonly string[];
  readonly invoke: (name: string, inputs: readonly string[]) => string;
}

/** The comparison as most languages write it. */
export function holds({ left, relation, right }: Condition): string {
  return `${left} ${relation} ${right}`;
}

/** Lines that are further in. */
export function indentedBy(indent: string): (lines: readonly string[]) => readonly string[] {
  return (lines) => lines.map((line) => (line === '' ? '' : `${indent}${line}`));
}

/** A routine that sets a vector d or e, or returns the one number that it computes. */
function setting(
  script: Script,
  { name, inputs, into, size }: { name: string; inputs: readonly string[]; into: string; size: number },
  lines: readonly CodeLine[],
): readonly string[] {
  const [only] = lines;
  const how = assignments(lines);
  if (size === 1 && only?.kind === 'set')
    return script.routine({ name, inputs, outputs: [{ name: into, value: only.value }] }, []);
  return script.routine({ name, inputs, outputs: [{ name: into, value: into }] }, [
    ...script.declare([], [[into, size]]),
    ...lines.flatMap((line) => script.line(line, how)),
  ]);
}

/** The right-hand side, how it moves along v where that is needed, and the exact solution. */
export function problemRoutines(script: Script, parts: ProgramParts): readonly string[] {
  const { step, width, size, rightHandSides, moved, exact, rhsName } = parts;
  const inputs = ['t', ...step.vectors];
  return [
    ...setting(script, { name: rhsName, inputs, into: 'd', size: width }, rightHandSides),
    ...(moved === null
      ? []
      : [
          `${script.comment} directional derivative of the right-hand side along v, for the Jacobian in Newton's method`,
          ...setting(
            script,
            { name: `${rhsName}_moved`, inputs: [...inputs, 'v'], into: 'd', size: width },
            moved,
          ),
        ]),
    ...(exact === null ? [] : setting(script, { name: 'exact', inputs: ['t'], into: 'e', size }, exact)),
  ];
}

/** One step of a method: from the present values, and those that it keeps, to the next ones. */
function stepRoutine(script: Script, { width }: ProgramParts, step: StepRoutine): readonly string[] {
  const how = assignments(step.body);
  const isWithin = (name: string): boolean => how.byElement.has(name) || !how.once.has(name);
  return script.routine({ name: step.name, inputs: stepArguments(step), outputs: stepOutputs(step) }, [
    ...script.declare(step.numbers.filter(isWithin), [
      ...step.arrays.filter(isWithin).map((name) => [name, width] as const),
      ...step.rooms.map(({ name, size }) => [name, size] as const),
    ]),
    ...step.body.flatMap((line) => script.line(line, how)),
  ]);
}

/** The steps of the method, and of the one that computes its starting values. */
export function stepRoutines(script: Script, parts: ProgramParts): readonly string[] {
  return [
    ...stepRoutine(script, parts, parts.step),
    ...(parts.starter === null ? [] : stepRoutine(script, parts, parts.starter)),
  ];
}

/** How names are set that have been declared. */
const SET_BEFORE: Assignments = { once: new Set(), byElement: new Set() };

/** Lines that set the state to the initial values, with room for what is kept. */
export function beginLines(script: Script, parts: ProgramParts): readonly string[] {
  const { step, width, initial } = parts;
  const zero = script.zeros(width);
  return [
    ...(width === 1
      ? []
      : script.declare(
          [],
          step.vectors.map((name) => [name, width] as const),
        )),
    ...initial.flatMap((line) =>
      width === 1 && line.kind === 'set'
        ? [script.assign([line.to], line.value, true)]
        : script.line(line, SET_BEFORE),
    ),
    ...step.kept.map(({ name }) => script.assign([name], zero, true)),
  ];
}

/** Lines that do step n from the time t: by the method, or by the one that it starts with. */
export function advanceLines(script: Script, parts: ProgramParts): readonly string[] {
  const { step, starter, depth, rhsName } = parts;
  const names = stepOutputs(step).map(({ name }) => name);
  const own = script.assign(names, script.invoke('step', stepArguments(step)), false);
  if (starter === null) return [own];
  const rhs = script.invoke(rhsName, ['t', ...step.vectors]);
  return script.choose(
    `n < ${depth}`,
    [
      ...(keepsRhs(parts) ? [script.assign(['f_0'], rhs, true)] : []),
      ...step.kept.map(({ name, from }) => script.assign([name], from, false)),
      script.assign(step.vectors, script.invoke('first_step', stepArguments(starter)), false),
    ],
    [own],
  );
}
