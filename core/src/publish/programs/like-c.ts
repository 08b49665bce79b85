import type { Condition, CodeLine, Constant, ProgramParts, StepRoutine } from './language.ts';
import { headNotes, placesByComponent } from './notes.ts';

/** What C and JavaScript say differently. */
interface Dialect {
  readonly head: (notes: readonly string[]) => readonly string[];
  readonly constant: (constant: Constant) => string;
  /** Sets the constants that are computed when the program runs; '' where all are set at once. */
  readonly setUp: string;
  readonly declare: (
    numbers: readonly string[],
    arrays: readonly string[],
    width: number,
  ) => readonly string[];
  readonly globals: (
    numbers: readonly string[],
    arrays: readonly string[],
    width: number,
  ) => readonly string[];
  readonly loop: (from: number, below: number, counter?: 'j' | 'column') => string;
  /** The head of a loop that counts its rounds. */
  readonly rounds: string;
  readonly heads: {
    readonly rhs: (name: string, vectors: readonly string[], isOne: boolean) => string;
    readonly exact: (isOne: boolean) => string;
    readonly step: (name: string) => string;
    readonly begin: string;
  };
  /** Lines that keep a compiler from warning of arguments that a routine does not read. */
  readonly unread: (names: readonly string[]) => readonly string[];
  readonly time: string;
  /** Whether a number is finite. */
  readonly finite: (value: string) => string;
  readonly main: (parts: ProgramParts, components: readonly string[]) => readonly string[];
  readonly helpers: (used: string) => readonly string[];
}

function indented(lines: readonly string[]): readonly string[] {
  return lines.map((line) => (line === '' ? '' : `  ${line}`));
}

/** The lines of a routine, with what its arguments need that it does not read. */
function withArguments(
  dialect: Dialect,
  names: readonly string[],
  lines: readonly string[],
): readonly string[] {
  const text = lines.join('\n');
  return [...dialect.unread(names.filter((name) => !new RegExp(`\\b${name}\\b`).test(text))), ...lines];
}

/** A routine from its head and its lines. */
function routine(head: string, lines: readonly string[]): readonly string[] {
  return [`${head} {`, ...indented(lines), '}'];
}

function holds({ left, relation, right }: Condition): string {
  return `${left} ${relation} ${right}`;
}

function lineText(dialect: Dialect, line: CodeLine): readonly string[] {
  switch (line.kind) {
    case 'set':
      return [`${line.to} = ${line.value};`];
    case 'routine':
      return [`${line.name}(${[...line.inputs, line.into].join(', ')});`];
    case 'each': {
      const body = line.body.flatMap((inner) => lineText(dialect, inner));
      const [only] = body;
      const head = dialect.loop(line.from, line.below, line.counter);
      return body.length === 1 ? [`${head} ${only ?? ''}`] : [`${head} {`, ...indented(body), '}'];
    }
    case 'repeat':
      return [
        `${dialect.rounds} {`,
        ...indented(line.body.flatMap((inner) => lineText(dialect, inner))),
        '}',
      ];
    case 'leave':
      return [`if (${line.when.map(holds).join(' && ')}) break;`];
    case 'fail':
      return [`if (!(${holds(line.unless)})) fail(${JSON.stringify(line.message)});`];
    case 'solve':
      return [`if (!solve(matrix, right, ${line.unknowns})) fail("Newton's method: singular Jacobian");`];
  }
}

/** A number or a vector set to another. */
function copied(dialect: Dialect, { width }: ProgramParts, to: string, from: string): string {
  return width === 1 ? `${to} = ${from};` : `${dialect.loop(0, width)} ${to}[j] = ${from}[j];`;
}

function stepLines(dialect: Dialect, parts: ProgramParts, step: StepRoutine): readonly string[] {
  const { arrays, numbers, vectors, kept, next } = step;
  const lines = [
    ...dialect.declare(numbers, arrays, parts.width),
    ...step.rooms.flatMap(({ name, size: length }) => dialect.declare([], [name], length)),
    ...(step.usesTime || step.body.some(({ kind }) => kind === 'routine') ? [dialect.time] : []),
    ...step.body.flatMap((line) => lineText(dialect, line)),
    ...kept.map(({ name, from }) => copied(dialect, parts, name, from)),
    ...vectors.map((vector, i) => copied(dialect, parts, vector, next[i] ?? '')),
  ];
  return routine(dialect.heads.step(step.name), withArguments(dialect, ['n', 'h'], lines));
}

/** What is kept of a point at which another method does the step. */
function keepLines(dialect: Dialect, parts: ProgramParts): readonly string[] {
  const { step, width, rhsName } = parts;
  const isOne = width === 1;
  const needsRhs = step.kept.some(({ from }) => from === 'f_0');
  const own = step.vectors.join(', ');
  const lines = [
    ...(needsRhs ? dialect.declare(isOne ? ['f_0'] : [], isOne ? [] : ['f_0'], width) : []),
    ...(needsRhs
      ? [dialect.time, isOne ? `f_0 = ${rhsName}(t, ${own});` : `${rhsName}(t, ${own}, f_0);`]
      : []),
    ...step.kept.map(({ name, from }) => copied(dialect, parts, name, from)),
  ];
  return routine(dialect.heads.step('keep'), withArguments(dialect, ['n', 'h'], lines));
}

/** A whole program in a language with the braces of C. */
export function likeC(dialect: Dialect, parts: ProgramParts, call: string, library: string): string {
  const { step, starter, width, size, rightHandSides, moved, exact, rhsName, constants } = parts;
  const isOne = width === 1;
  const components = placesByComponent(parts).map(({ vector, index }) => {
    const name = step.vectors[vector] ?? '';
    return isOne ? name : `${name}[${index}]`;
  });
  const stateNames = step.vectors;
  const keptNames = step.kept.map(({ name }) => name);
  const state = [...stateNames, ...keptNames];
  const initial = parts.initial.flatMap((line) => lineText(dialect, line));
  const rhsRoutine = (
    name: string,
    vectors: readonly string[],
    lines: readonly CodeLine[],
  ): readonly string[] =>
    routine(
      dialect.heads.rhs(name, vectors, isOne),
      withArguments(
        dialect,
        ['t', ...vectors],
        [
          ...(isOne ? dialect.declare(['d'], [], 1) : []),
          ...lines.flatMap((line) => lineText(dialect, line)),
          ...(isOne ? ['return d;'] : []),
        ],
      ),
    );
  const exactBody = exact?.flatMap((line) => lineText(dialect, line)) ?? [];
  const all = [
    ...constants.map(dialect.constant),
    '',
    ...(dialect.setUp === ''
      ? []
      : [
          ...routine(
            dialect.setUp,
            constants.flatMap(({ name, value, isComputed }) => (isComputed ? [`${name} = ${value};`] : [])),
          ),
          '',
        ]),
    ...rhsRoutine(rhsName, stateNames, rightHandSides),
    '',
    ...(moved === null
      ? []
      : [
          "/* directional derivative of the right-hand side along v, for the Jacobian in Newton's method */",
          ...rhsRoutine(`${rhsName}_moved`, [...stateNames, 'v'], moved),
          '',
        ]),
    ...(exact === null
      ? []
      : [
          ...routine(
            dialect.heads.exact(size === 1),
            withArguments(
              dialect,
              ['t'],
              size === 1 ? [...dialect.declare(['e'], [], 1), ...exactBody, 'return e;'] : exactBody,
            ),
          ),
          '',
        ]),
    ...dialect.globals(isOne ? state : [], isOne ? [] : state, width),
    '',
    ...stepLines(dialect, parts, step),
    '',
    ...(starter === null
      ? []
      : [...stepLines(dialect, parts, starter), '', ...keepLines(dialect, parts), '']),
    ...routine(dialect.heads.step('advance'), [
      starter === null
        ? 'step(n, h);'
        : `if (n < ${parts.depth}) { keep(n, h); first_step(n, h); } else step(n, h);`,
      isOne
        ? `if (!${dialect.finite(stateNames[0] ?? '')}) stop(n, h);`
        : `${dialect.loop(0, width)} if (${stateNames.map((name) => `!${dialect.finite(`${name}[j]`)}`).join(' || ')}) stop(n, h);`,
    ]),
    '',
    ...routine(dialect.heads.begin, initial),
    '',
    ...dialect.main(parts, components),
  ];
  const helpers = dialect.helpers(all.join('\n'));
  return `${[...dialect.head(headNotes(parts, call, library)), ...helpers, ...all].join('\n').replace(/\n{3,}/g, '\n\n')}\n`;
}

export type { Dialect };
