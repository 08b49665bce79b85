import type { Expression } from '../formula/expression.ts';
import type { Given, Method, Shape, Variable } from '../method/method.ts';
import type { Span } from '../text/place.ts';
import type { Register, StepTree } from './step-tree.ts';

/** What a register holds: a number, or one value for each component. */
export type ValueShape = Exclude<Shape, 'operator'>;

/** Where an instruction comes from. */
interface FromText {
  /** The line of the text, by what it gives. */
  readonly line: string;
  /** The place of its formula in the text. */
  readonly span: Span;
}

/** One instruction of a step. */
export type Instruction = OpenInstruction | SolveInstruction;

type OpenInstruction = FromText &
  (
    | {
        /** A number, or a vector made of others component by component. */
        readonly kind: 'combine';
        readonly into: Register;
        readonly shape: ValueShape;
        readonly value: StepTree;
      }
    | {
        /** f (or a) at a time and a value (or a position and a velocity). */
        readonly kind: 'rhs';
        readonly into: Register;
        readonly time: StepTree;
        readonly at: readonly Register[];
        /** The values at which it is taken, as they are typed; none for f[n], which represents itself. */
        readonly typedAt: readonly Expression[];
      }
    | {
        /** The total derivative of f of an order from 1 on. */
        readonly kind: 'derivative';
        readonly order: number;
        readonly into: Register;
        readonly time: StepTree;
        readonly at: Register;
      }
    | {
        /** A partial derivative of f by t and y; for systems the one by y is applied to a vector. */
        readonly kind: 'partial';
        readonly times: number;
        readonly values: number;
        /** What a derivative by y is applied to; null where the problem has one equation and it is a number. */
        readonly along: Register | null;
        readonly into: Register;
        readonly time: StepTree;
        readonly at: Register;
      }
    | {
        /** A derivative that the text types out, at a time and value put in. */
        readonly kind: 'typed';
        readonly into: Register;
        readonly value: StepTree;
      }
  );

/** Values that their own formulas hold: find `unknowns` so that each equals its `results`. */
export interface SolveInstruction extends FromText {
  readonly kind: 'solve';
  readonly unknowns: readonly Register[];
  /** Compute the results from the unknowns. */
  readonly values: readonly Instruction[];
  readonly results: readonly Register[];
  /**
   * What Newton's method starts from: the present value for a value, 0 for a slope. A slope of 0 leaves the values
   * where they are; from the slope there a stiff formula would be led to a root far away.
   */
  readonly guess: 'present' | 'zero';
}

/** A named quantity of a step, to be shown in a table of steps. */
export interface Stage {
  readonly name: string;
  readonly shape: ValueShape;
  readonly register: Register;
}

/** A formula of the text that gives a value, in the order of the text. */
export interface ProgramLine {
  readonly given: Given;
  /** The place of the line in the text. */
  readonly span: Span;
  /** What holds the value. */
  readonly register: Register;
  /** The formula as it is typed, with its place in the text, and over registers. */
  readonly source: Expression;
  readonly value: StepTree;
  /** Whether the value is solved for, because its formula holds it. */
  readonly isSolved: boolean;
}

/** A value kept from step to step: variable or f at n - back. */
export interface PastValue {
  readonly of: Variable | 'f';
  readonly back: number;
  readonly register: Register;
}

/** A method as instructions, whatever the size of the problem. */
export interface Program {
  readonly form: Method['form'];
  readonly called: Method['called'];
  readonly instructions: readonly Instruction[];
  readonly lines: readonly ProgramLine[];
  /** Registers of the present values: y, or x and v. */
  readonly present: readonly Register[];
  /** Registers of the new values after the last instruction, in the same order. */
  readonly next: readonly Register[];
  readonly stages: readonly Stage[];
  /** Values from before, the most recent first; none for a one-step method. */
  readonly kept: readonly PastValue[];
  /** The register of f[n], where f is kept; null where it is not. */
  readonly presentRhs: Register | null;
  readonly depth: number;
}
