import { lower } from '../src/program/lowering.ts';
import type { Instruction, Program } from '../src/program/program.ts';
import { type RhsLeaf, RhsTrees } from '../src/program/rhs-tree.ts';
import type { Register, StepLeaf } from '../src/program/step-tree.ts';
import type { Bound, Tree } from '../src/formula/expression.ts';
import { findInLibrary } from '../src/method/library/find-method.ts';
import type { Method } from '../src/method/method.ts';
import type { Problem } from '../src/problem/problem.ts';

/** Binary places behind the point: rounding is out of sight. */
const BITS = 256n;
const ONE = 1n << BITS;

function times(a: bigint, b: bigint): bigint {
  return (a * b) >> BITS;
}

function over(a: bigint, b: bigint): bigint {
  return (a << BITS) / b;
}

/** A double as it is, without rounding. */
function exactly(value: number): bigint {
  let [scaled, power] = [value, 0n];
  while (!Number.isInteger(scaled)) [scaled, power] = [scaled * 2, power + 1n];
  return (BigInt(scaled) << BITS) >> power;
}

/** The decimal number that was typed for a double. */
function asTyped(value: number): bigint {
  const [mantissa = '', power = '0'] = String(value).split('e');
  const [whole = '', decimals = ''] = mantissa.split('.');
  const exponent = Number(power) - decimals.length;
  const digits = BigInt(`${whole}${decimals}`) << BITS;
  return exponent < 0 ? digits / 10n ** BigInt(-exponent) : digits * 10n ** BigInt(exponent);
}

/** What a number of a text is: its double, or the decimal number that was typed for it. */
export type NumbersAre = 'doubles' | 'as typed';

const READERS: Readonly<Record<NumbersAre, (value: number) => bigint>> = {
  doubles: exactly,
  'as typed': asTyped,
};

/** The nearest double of a number between 2^-200 and 2^800. */
export function toDouble(a: bigint): number {
  const sign = a < 0n ? -1 : 1;
  const size = a < 0n ? -a : a;
  const spare = BigInt(Math.max(0, size.toString(2).length - 60));
  return sign * Number(size >> spare) * 2 ** Number(spare - BITS);
}

function root(a: bigint): bigint {
  const square = a << BITS;
  let guess = 1n << BigInt(Math.ceil(square.toString(2).length / 2));
  for (;;) {
    const next = (guess + square / guess) >> 1n;
    if (next >= guess) return guess;
    guess = next;
  }
}

/** Evaluates a tree of rational operations and roots; throws for anything else. */
function valueOf<B>(tree: Tree<Bound<B>>, leaf: (to: B) => bigint, read: (value: number) => bigint): bigint {
  switch (tree.kind) {
    case 'number':
      return read(tree.value);
    case 'negate':
      return -valueOf(tree.of, leaf, read);
    case 'binary': {
      const [a, b] = [valueOf(tree.left, leaf, read), valueOf(tree.right, leaf, read)];
      switch (tree.operator) {
        case '+':
          return a + b;
        case '-':
          return a - b;
        case '*':
          return times(a, b);
        case '/':
          return over(a, b);
        case '^': {
          let made = ONE;
          for (let i = 0n; i < b >> BITS; i += 1n) made = times(made, a);
          return made;
        }
      }
      break;
    }
    case 'call':
      if (tree.name === 'sqrt') return root(valueOf(tree.inputs[0]!, leaf, read));
      break;
    case 'bound':
      return leaf(tree.to);
    case 'if':
      break;
  }
  throw new Error('not rational');
}

/** How many steps the interval has, and how many of them are done. */
interface FixedSteps {
  readonly steps: number;
  readonly until: number;
  readonly numbers: NumbersAre;
}

/** Steps of a method in fixed-point arithmetic, from the initial values on; explicit methods on one equation. */
class FixedRun {
  readonly #program: Program;
  readonly #rhs: Tree<Bound<RhsLeaf>>;
  readonly #start: bigint;
  readonly #h: bigint;
  /** Values of all steps. */
  readonly values: bigint[];
  readonly #slopes: bigint[] = [];

  readonly #read: (value: number) => bigint;

  constructor(problem: Problem, method: Method, { steps, until, numbers }: FixedSteps) {
    this.#read = READERS[numbers];
    const [block] = problem.blocks;
    if (block === undefined || problem.size !== 1) throw new Error('one equation is asked for');
    this.#program = lower(method, true);
    this.#rhs = new RhsTrees(problem).at(block.rhs, block, 0);
    this.#start = this.#read(problem.start);
    this.#h = over(this.#read(problem.end) - this.#start, BigInt(steps) << BITS);
    const { depth } = this.#program;
    const starter = depth === 0 ? null : findInLibrary(method.startWith?.name ?? '');
    if (depth > 0 && starter === null) throw new Error('no starter');
    this.values =
      starter === null
        ? [this.#read(problem.initial[0]!)]
        : [...new FixedRun(problem, starter, { steps, until: depth, numbers }).values];
    while (this.values.length <= until) this.#step();
  }

  #time(n: number): bigint {
    return this.#start + BigInt(n) * this.#h;
  }

  #f(t: bigint, y: bigint): bigint {
    return valueOf(
      this.#rhs,
      (to) => {
        if (to.kind === 'time') return t;
        if (to.kind === 'constant') return this.#read(to.value);
        return y;
      },
      this.#read,
    );
  }

  #slope(n: number): bigint {
    return (this.#slopes[n] ??= this.#f(this.#time(n), this.values[n]!));
  }

  #step(): void {
    const n = this.values.length - 1;
    const registers = new Map<Register, bigint>();
    registers.set(this.#program.present[0]!, this.values[n]!);
    for (const { of, back, register } of this.#program.kept)
      registers.set(register, of === 'f' ? this.#slope(n - back) : this.values[n - back]!);
    const leaf = (to: StepLeaf): bigint => {
      switch (to.kind) {
        case 'time':
          return this.#time(n + to.offset);
        case 'step':
          return this.#h;
        case 'constant':
          return this.#read(to.value);
        case 'register':
          return registers.get(to.register)!;
        case 'tangent':
          throw new Error('no tangents');
      }
    };
    const run = (instruction: Instruction): void => {
      if (instruction.kind === 'combine')
        registers.set(instruction.into, valueOf(instruction.value, leaf, this.#read));
      else if (instruction.kind === 'rhs')
        registers.set(
          instruction.into,
          this.#f(valueOf(instruction.time, leaf, this.#read), registers.get(instruction.at[0]!)!),
        );
      else throw new Error('explicit methods without derivatives alone');
    };
    this.#program.instructions.forEach(run);
    this.values.push(registers.get(this.#program.next[0]!)!);
  }
}

/**
 * The last value of a run with rounding out of sight, in 256 binary places; null for what is not rational, implicit, or
 * more than one equation.
 */
export function fixedRun(
  problem: Problem,
  method: Method,
  steps: number,
  numbers: NumbersAre = 'doubles',
): bigint | null {
  try {
    return new FixedRun(problem, method, { steps, until: steps, numbers }).values[steps] ?? null;
  } catch (reason) {
    if (reason instanceof Error) return null;
    throw reason;
  }
}

/** A double less a number in fixed point, as a double. */
export function lessFixed(value: number, fixed: bigint): number {
  return toDouble(exactly(value) - fixed);
}
