import { startingChain, type TitledMethod } from '../../compile/starting-chain.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import type { Method } from '../../method/method.ts';
import { componentName, hasExact, type Problem } from '../../problem/problem.ts';
import { exactSolution } from '../../run/exact-solution.ts';
import { short, stepSizeText } from '../../text/number-text.ts';
import { attempt } from '../../text/refusal.ts';
import { type KeptDigits, roundedTo } from '../kept-digits.ts';
import type { StudentRow } from '../student-rows.ts';
import { timeIn, type Trial } from '../trial-run.ts';
import type { Change, MistakeKind } from './change.ts';

/** What mistakes of a run are made of that depend on the rows of a student. */
export interface RowsOfTrial {
  readonly trial: Trial;
  readonly rows: readonly StudentRow[];
  readonly digits: KeptDigits;
}

function change(
  kind: MistakeKind,
  says: string,
  apply: Change['apply'],
  more: Partial<Pick<Change, 'place' | 'isFrequent' | 'shift'>> = {},
): Change {
  return { kind, says, line: null, isFrequent: true, place: kind, shift: 0, apply, ...more };
}

function ofTime({ problem }: Trial): readonly Change[] {
  const t = problem.independent;
  const with_ =
    (time: Trial['time']): Change['apply'] =>
    (trial) => ({ ...trial, time });
  return [
    change('time constant', `${t} stays at its first value in every step`, with_('constant'), {
      place: 'time',
    }),
    change('time ahead', `${t} is advanced before the step`, with_('ahead'), { place: 'time' }),
    change('time in single precision', `${t} is summed up in single precision`, with_('single sum'), {
      place: 'time',
    }),
  ];
}

function endText({ independent, end }: Problem): string {
  return `${independent} = ${short(end, 6)}`;
}

/** A last step that is not made shorter to meet the end. */
function ofTheEnd({ problem, shorter, h }: Trial): readonly Change[] {
  if (shorter === null) return [];
  const says = `The last step is ${stepSizeText(h)} instead of ${short(shorter.h, 6)}, past ${endText(problem)}`;
  return [change('past the end', says, (now) => ({ ...now, shorter: null }), { place: 'step size' })];
}

function ofStepSize({ h, steps, problem }: Trial): readonly Change[] {
  const length = problem.end - problem.start;
  const sizes = [h / 2, 2 * h, h / 10, 10 * h, h / 4, 4 * h];
  const counts = [steps - 1, steps + 1].filter((count) => count > 0);
  return [
    ...sizes.map((size) =>
      change(
        'step size',
        `h = ${stepSizeText(size)} is used instead of ${stepSizeText(h)}`,
        (trial) => ({ ...trial, h: size, shorter: null }),
        {
          place: 'step size',
        },
      ),
    ),
    ...counts.map((count) =>
      change(
        'number of steps',
        `The interval is divided by ${count} instead of ${steps}`,
        (trial) => ({ ...trial, h: length / count, shorter: null }),
        { place: 'step size' },
      ),
    ),
  ];
}

function initialValues({ initial, problem }: Trial, values: readonly number[]): Change {
  const says = values
    .flatMap((value, j) =>
      value === initial[j]
        ? []
        : [
            `${componentName(problem, j)} starts at ${short(value, 8)} instead of ${short(initial[j] ?? NaN, 8)}`,
          ],
    )
    .join(', ');
  return change('initial value', says, (trial) => ({ ...trial, initial: values }));
}

/** Initial values that are mistaken often. */
function ofInitialValues(trial: Trial): readonly Change[] {
  const { initial } = trial;
  const zero = initial.flatMap((value, j) =>
    value === 0 ? [] : [initial.map((one, k) => (k === j ? 0 : one))],
  );
  const swapped = initial.length > 1 ? [[...initial].reverse()] : [];
  const opposite = initial.flatMap((value, j) =>
    value === 0 ? [] : [initial.map((one, k) => (k === j ? -one : one))],
  );
  return [...zero, ...opposite, ...swapped].map((values) => initialValues(trial, values));
}

/** The initial values that the first row gives, where they are others. */
function ofFirstRow({ trial, rows, digits }: RowsOfTrial): readonly Change[] {
  const { initial } = trial;
  const first = rows.find(({ n }) => n === 0);
  const others = initial.map((value, j) => {
    const given = first?.values[j]?.value;
    return given === undefined || given === roundedTo(value, digits) ? value : given;
  });
  return others.some((value, j) => value !== initial[j]) ? [initialValues(trial, others)] : [];
}

function ofArithmetic(trial: Trial): readonly Change[] {
  return [
    change(
      'single precision',
      'All arithmetic is single precision',
      (one) => ({ ...one, precision: 'single' }),
      {
        isFrequent: false,
      },
    ),
    ...(trial.problem.size > 1
      ? [
          change(
            'one after the other',
            'Each component is updated with new values of those before it',
            (one) => ({ ...one, sequential: 'first to last' }),
            { place: 'together' },
          ),
          change(
            'one after the other',
            'Each component is updated with new values of those after it',
            (one) => ({ ...one, sequential: 'last to first' }),
            { place: 'together' },
          ),
        ]
      : []),
    ...(hasExact(trial.problem)
      ? [
          change('exact arguments', 'f is evaluated at the exact solution', (one) => ({
            ...one,
            rhsAtExact: true,
          })),
        ]
      : []),
  ];
}

/** Methods that are taken for another one by those who begin. */
const USUAL = new Set(['Euler', 'Heun', 'Midpoint', 'RK4']);

/** A method with its starting methods of the library; null where there are none. */
function chainOf(one: TitledMethod): readonly Method[] | null {
  const instead = one.method.startWith === null ? 'RK4' : null;
  const chain = attempt(() => startingChain(one, { find: findInLibrary, instead }));
  const methods = chain.ok ? chain.value.map(({ method }) => method) : [];
  return methods.at(-1)?.depth === 0 ? methods : null;
}

function ofMethods(trial: Trial, methods: readonly TitledMethod[], title: string): readonly Change[] {
  const [own] = trial.methods;
  const library = LIBRARY.flatMap((known) => {
    const method = findInLibrary(known.title);
    return method === null ? [] : [{ title: known.title, method }];
  });
  const all = [...methods, ...library.filter((known) => methods.every((one) => one.title !== known.title))];
  const others = all.filter(
    (one) => one.method !== own && one.title !== title && one.method.form === own?.form,
  );
  const starters = all.filter((one) => one.method.depth === 0 && one.method.form === own?.form);
  return [
    ...others.flatMap((one) => {
      const chain = chainOf(one);
      if (chain === null) return [];
      return [
        change(
          'method',
          `${one.title} is used instead of ${title}`,
          (now) => ({ ...now, methods: chain, exchanged: null }),
          {
            place: 'method',
            isFrequent: methods.includes(one) || USUAL.has(one.title),
          },
        ),
      ];
    }),
    ...(own !== undefined && own.depth > 0
      ? starters.map((one) =>
          change('starting method', `${one.title} makes the starting values`, (now) => ({
            ...now,
            methods: [...now.methods.slice(0, 1), one.method],
            exactStart: false,
          })),
        )
      : []),
    ...(own !== undefined && own.depth > 0 && hasExact(trial.problem)
      ? [
          change('starting method', 'The starting values are exact', (now) => ({
            ...now,
            methods: now.methods.slice(0, 1),
            exactStart: true,
          })),
        ]
      : []),
  ];
}

/**
 * Mistakes in how a run is done, whatever the rows of a student are.
 *
 * @param others methods that may have been used instead, such as those of the study
 * @param title of the right method
 */
export function runChanges(trial: Trial, others: readonly TitledMethod[], title: string): readonly Change[] {
  const shifted = [
    { shift: 1, says: 'Each row has the value of the grid point after it' },
    { shift: -1, says: 'Each row has the value of the grid point before it' },
  ];
  return [
    ...ofTime(trial),
    ...ofStepSize(trial),
    ...ofTheEnd(trial),
    ...ofInitialValues(trial),
    ...ofArithmetic(trial),
    ...ofMethods(trial, others, title),
    ...shifted.map(({ shift, says }) => change('shifted rows', says, (now) => now, { shift })),
  ];
}

/** Mistakes in how a run is done that the rows of a student suggest. */
export function rowChanges(about: RowsOfTrial): readonly Change[] {
  const { trial, rows, digits } = about;
  const { steps, problem } = trial;
  const isLonger = rows.some(({ n }) => n > steps);
  return [
    ...ofFirstRow(about),
    change('rounded rows', 'Each row is rounded before the next one is computed', (one) => ({
      ...one,
      kept: (value) => roundedTo(value, digits),
    })),
    ...(isLonger ? [change('past the end', `The run goes on past ${endText(problem)}`, (now) => now)] : []),
  ];
}

/** The exact solution in the place of a run; null where none is given. */
export function exactRow(trial: Trial): ((n: number) => readonly number[]) | null {
  const { problem, initial } = trial;
  if (!hasExact(problem)) return null;
  const solution = exactSolution(problem);
  return (n) => initial.map((_, place) => solution.value(place, timeIn(trial, n)));
}

/** Whether a problem may be one of any method: families are too large to be tried a thousand times. */
export function isSmall({ size }: Problem): boolean {
  return size <= 20;
}
