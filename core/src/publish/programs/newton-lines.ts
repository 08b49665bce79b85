import { MAX_ITERATIONS, MIN_CORRECTION, SCALE_PART, tolerances } from '../../compile/newton/newton-loop.ts';
import type { Line, Writing } from './language.ts';

/** One vector of unknowns: its name, how its formula is called, and how both move. */
export interface Unknown {
  readonly name: string;
  readonly result: string;
  readonly direction: string;
  /** How the formula moves; null where it does not. */
  readonly moved: string | null;
}

/** What Newton's method for one solve is made of. */
export interface NewtonParts {
  readonly writing: Writing;
  /** Elements of each vector; vectors are numbers where it is 1. */
  readonly width: number;
  readonly unknowns: readonly Unknown[];
  /** Lines that compute the formulas, and how they move along the directions. */
  readonly residual: readonly Line[];
  readonly moving: readonly Line[];
  /** Name of the present values. */
  readonly present: string;
  /** Whether the unknowns are slopes, whose size is that of the values over h. */
  readonly isSlope: boolean;
  /** The stage that is solved for. */
  readonly title: string;
}

/** Names of numbers and vectors that the lines of Newton's method use. */
export const NEWTON_NUMBERS = ['before', 'reach', 'moved', 'scale'] as const;

/** A number beyond all others. */
const HUGE = 1e300;
/** The same ends of an iteration as those of a run. */
const { epsilon: EPSILON, nearly: NEARLY } = tolerances(false);

/** One equation for one number: its correction without a matrix. */
function alone(
  [unknown]: readonly Unknown[],
  moving: readonly Line[],
  number: (value: number) => string,
): readonly Line[] {
  if (unknown === undefined) return [];
  const { name, result, direction, moved } = unknown;
  return [
    { kind: 'set', to: direction, value: number(1) },
    ...moving,
    { kind: 'set', to: 'right', value: `(${result} - ${name})/(${number(1)} - ${moved ?? number(0)})` },
  ];
}

/**
 * Newton's method for z = g(z) with the exact Jacobian I - g'(z), one column at a time, until a correction is lost in
 * rounding or no longer becomes smaller: as a run does it, without damping.
 */
export function newtonLines(parts: NewtonParts): readonly Line[] {
  const { writing, width, unknowns, present, isSlope, residual, moving, title } = parts;
  const count = unknowns.length * width;
  const number = (value: number): string => writing.number(value);
  const max = (a: string, b: string): string => writing.call('max', [a, b]);
  const abs = (a: string): string => writing.call('abs', [a]);
  const set = (to: string, value: string): Line => ({ kind: 'set', to, value });
  const isOne = width === 1;
  /** Lines for every element of every unknown; `index` is its place among all. */
  const each = (
    make: (element: (vector: string) => string, index: string, unknown: Unknown) => readonly Line[],
  ): readonly Line[] =>
    unknowns.flatMap((unknown, u): readonly Line[] => {
      if (isOne) return make((vector) => vector, String(u), unknown);
      const index = u === 0 ? 'j' : `${u * width} + j`;
      return [
        {
          kind: 'each',
          from: 0,
          below: width,
          body: make((vector) => writing.running(vector, 'j', 0), index, unknown),
        },
      ];
    });
  const row = (index: string): string => `(${index})*${count} + column`;
  const correction = (index: string): string => (count === 1 ? 'right' : writing.at('right', index));
  const diagonal = (index: string, yes: string, no: string): string =>
    writing.choice({ left: index, relation: '==', right: 'column', yes, no });
  return [
    ...each((element, _, { name }) => [set(element(name), isSlope ? number(0) : element(present))]),
    set('before', number(HUGE)),
    set('reach', number(0)),
    set('scale', isOne ? abs(present) : number(0)),
    ...(isOne
      ? []
      : [
          {
            kind: 'each' as const,
            from: 0,
            below: width,
            body: [set('scale', max('scale', abs(writing.running(present, 'j', 0))))],
          },
        ]),
    ...(isSlope ? [set('scale', 'scale/h')] : []),
    {
      kind: 'repeat',
      body: [
        ...residual,
        ...(count === 1
          ? alone(unknowns, moving, number)
          : [
              ...each((element, index, { name, result }) => [
                set(writing.at('right', index), `${element(result)} - ${element(name)}`),
              ]),
              {
                kind: 'each' as const,
                counter: 'column' as const,
                from: 0,
                below: count,
                body: [
                  ...each((element, index, { direction }) => [
                    set(element(direction), diagonal(index, number(1), number(0))),
                  ]),
                  ...moving,
                  ...each((element, index, { moved }) => {
                    const moves = moved === null ? number(0) : element(moved);
                    return [
                      set(
                        writing.at('matrix', row(index)),
                        diagonal(index, `${number(1)} - ${moves}`, `-${moves}`),
                      ),
                    ];
                  }),
                ],
              },
              { kind: 'solve' as const, unknowns: count },
            ]),
        set('moved', number(0)),
        ...each((element, index, { name }) => [
          set('reach', max('reach', abs(element(name)))),
          set(element(name), `${element(name)} + ${correction(index)}`),
          set('moved', max('moved', abs(correction(index)))),
          set('reach', max('reach', abs(element(name)))),
        ]),
        {
          kind: 'leave',
          when: [
            {
              left: 'moved',
              relation: '<=',
              right: `${max(`${number(EPSILON)}*reach`, `${number(EPSILON * SCALE_PART)}*scale`)} + ${number(MIN_CORRECTION)}`,
            },
          ],
        },
        {
          kind: 'leave',
          when: [
            { left: 'moved', relation: '>=', right: 'before' },
            {
              left: 'moved',
              relation: '<=',
              right: `${number(NEARLY)}*${writing.choice({ left: 'round', relation: '>', right: '2', yes: max('reach', 'scale'), no: 'reach' })}`,
            },
          ],
        },
        {
          kind: 'fail',
          unless: { left: 'moved', relation: '<', right: number(HUGE) },
          message: `Newton's method does not converge for ${title}`,
        },
        {
          kind: 'fail',
          unless: { left: 'round', relation: '<', right: String(MAX_ITERATIONS) },
          message: `Newton's method does not converge for ${title}`,
        },
        set('before', 'moved'),
      ],
    },
  ];
}
