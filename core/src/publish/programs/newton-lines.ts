import { MAX_ITERATIONS, MIN_CORRECTION, SCALE_PART, tolerances } from '../../compile/newton/newton-loop.ts';
import type { Condition, CodeLine, Writing } from './language.ts';

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
  readonly residual: readonly CodeLine[];
  readonly moving: readonly CodeLine[];
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

/** Lines for every element of every unknown; `index` is its place among all. */
type EachLine = (element: (vector: string) => string, index: string, unknown: Unknown) => readonly CodeLine[];

/** Newton's method for one solve as lines, part by part. */
class NewtonLines {
  readonly #parts: NewtonParts;
  /** Number of unknown numbers. */
  readonly #count: number;

  constructor(parts: NewtonParts) {
    this.#parts = parts;
    this.#count = parts.unknowns.length * parts.width;
  }

  lines(): readonly CodeLine[] {
    const { residual, title } = this.#parts;
    const fail = (unless: Condition): CodeLine => ({
      kind: 'fail',
      unless,
      message: `Newton's method does not converge for ${title}`,
    });
    return [
      ...this.#guess(),
      {
        kind: 'repeat',
        body: [
          ...residual,
          ...(this.#count === 1 ? this.#alone() : this.#system()),
          ...this.#correction(),
          ...this.#ends(),
          fail({ left: 'moved', relation: '<', right: this.#number(HUGE) }),
          fail({ left: 'round', relation: '<', right: String(MAX_ITERATIONS) }),
          set('before', 'moved'),
        ],
      },
    ];
  }

  #number(value: number): string {
    return this.#parts.writing.number(value);
  }

  #max(a: string, b: string): string {
    return this.#parts.writing.call('max', [a, b]);
  }

  #abs(a: string): string {
    return this.#parts.writing.call('abs', [a]);
  }

  #each(make: EachLine): readonly CodeLine[] {
    const { unknowns, width, writing } = this.#parts;
    return unknowns.flatMap((unknown, u): readonly CodeLine[] => {
      if (width === 1) return make((vector) => vector, String(u), unknown);
      const index = u === 0 ? 'j' : `${u * width} + j`;
      const body = make((vector) => writing.running(vector, 'j', 0), index, unknown);
      return [{ kind: 'each', from: 0, below: width, body }];
    });
  }

  /** The first guess, and the size of the values that the step starts from. */
  #guess(): readonly CodeLine[] {
    const { width, present, isSlope, writing } = this.#parts;
    const isOne = width === 1;
    const largest: CodeLine = {
      kind: 'each',
      from: 0,
      below: width,
      body: [set('scale', this.#max('scale', this.#abs(writing.running(present, 'j', 0))))],
    };
    return [
      ...this.#each((element, _, { name }) => [
        set(element(name), isSlope ? this.#number(0) : element(present)),
      ]),
      set('before', this.#number(HUGE)),
      set('reach', this.#number(0)),
      set('scale', isOne ? this.#abs(present) : this.#number(0)),
      ...(isOne ? [] : [largest]),
      ...(isSlope ? [set('scale', 'scale/h')] : []),
    ];
  }

  /** One equation for one number: its correction without a matrix. */
  #alone(): readonly CodeLine[] {
    const { unknowns, moving } = this.#parts;
    const [unknown] = unknowns;
    if (unknown === undefined) return [];
    const { name, result, direction, moved } = unknown;
    const slope = `${this.#number(1)} - ${moved ?? this.#number(0)}`;
    return [set(direction, this.#number(1)), ...moving, set('right', `(${result} - ${name})/(${slope})`)];
  }

  /** The matrix one column at a time, and the solution of its equations. */
  #system(): readonly CodeLine[] {
    const { writing, moving } = this.#parts;
    const count = this.#count;
    const diagonal = (index: string, yes: string, no: string): string =>
      writing.choice({ left: index, relation: '==', right: 'column', yes, no });
    const column: CodeLine = {
      kind: 'each',
      counter: 'column',
      from: 0,
      below: count,
      body: [
        ...this.#each((element, index, { direction }) => [
          set(element(direction), diagonal(index, this.#number(1), this.#number(0))),
        ]),
        ...moving,
        ...this.#each((element, index, { moved }) => {
          const moves = moved === null ? this.#number(0) : element(moved);
          const entry = diagonal(index, `${this.#number(1)} - ${moves}`, `-${moves}`);
          return [set(writing.at('matrix', `(${index})*${count} + column`), entry)];
        }),
      ],
    };
    return [
      ...this.#each((element, index, { name, result }) => [
        set(writing.at('right', index), `${element(result)} - ${element(name)}`),
      ]),
      column,
      { kind: 'solve', unknowns: count },
    ];
  }

  /** Adds the correction, and finds the largest change and the largest value on the way. */
  #correction(): readonly CodeLine[] {
    const { writing } = this.#parts;
    const correction = (index: string): string => (this.#count === 1 ? 'right' : writing.at('right', index));
    return [
      set('moved', this.#number(0)),
      ...this.#each((element, index, { name }) => {
        const reach = set('reach', this.#max('reach', this.#abs(element(name))));
        return [
          reach,
          set(element(name), `${element(name)} + ${correction(index)}`),
          set('moved', this.#max('moved', this.#abs(correction(index)))),
          reach,
        ];
      }),
    ];
  }

  /** When the iteration is done. */
  #ends(): readonly CodeLine[] {
    const { writing } = this.#parts;
    const beside = this.#max(`${this.#number(EPSILON)}*reach`, `${this.#number(EPSILON * SCALE_PART)}*scale`);
    const size = writing.choice({
      left: 'round',
      relation: '>',
      right: '2',
      yes: this.#max('reach', 'scale'),
      no: 'reach',
    });
    return [
      {
        kind: 'leave',
        when: [{ left: 'moved', relation: '<=', right: `${beside} + ${this.#number(MIN_CORRECTION)}` }],
      },
      {
        kind: 'leave',
        when: [
          { left: 'moved', relation: '>=', right: 'before' },
          { left: 'moved', relation: '<=', right: `${this.#number(NEARLY)}*${size}` },
        ],
      },
    ];
  }
}

function set(to: string, value: string): CodeLine {
  return { kind: 'set', to, value };
}

/**
 * Newton's method for z = g(z) with the exact Jacobian I - g'(z), one column at a time, until a correction is lost in
 * rounding or no longer becomes smaller: as a run does it, without damping.
 */
export function newtonLines(parts: NewtonParts): readonly CodeLine[] {
  return new NewtonLines(parts).lines();
}
