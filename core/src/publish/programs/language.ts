import type { DecimalPrecision } from '../../decimal/decimal-precision.ts';
import { namesOf } from '../../text/names-of.ts';
import type { PrintedConditional, TextPart } from '../../formula/printer.ts';

/** The languages that programs are written in, by the ending of their files. */
export const LANGUAGE_LABELS = {
  py: 'Python',
  c: 'C',
  js: 'JavaScript',
  f90: 'Fortran',
  m: 'MATLAB/Octave',
  jl: 'Julia',
} as const;
export type LanguageName = keyof typeof LANGUAGE_LABELS;
export const LANGUAGES = namesOf(LANGUAGE_LABELS);

/** How a language writes the parts of a formula. */
export interface FormulaWriting {
  /**
   * A finite double that is at least 0, so that the same double is read back.
   *
   * @param digits as it is typed, where it has more than a double keeps
   */
  readonly number: (value: number, digits?: string) => string;
  /** All digits that are wanted of a constant of the notation; null for a name that is none, and where its double is written. */
  readonly constantDigits?: (name: string) => string | null;
  /** Functions of which the last digit may be another, beside those that differ in every language. */
  readonly inexact?: ReadonlySet<string>;
  /** Where an integer beside another number is written without a point, as in `2*k1`. */
  readonly integers: IntegerUse;
  /** A function of the notation on written inputs. */
  readonly call: (name: string, inputs: readonly string[]) => string;
  readonly power: (base: string, exponent: string) => TextPart;
  /** A choice that can be anywhere in a formula. */
  readonly choice: (choice: PrintedConditional<string>) => string;
}

/**
 * Where an integer is written without a point: beside a double, in quotients of two integers, too (they are no
 * integers), or as `number` writes it.
 */
export type IntegerUse = 'beside doubles' | 'in quotients' | 'as numbers';

/** How a programming language writes formulas, vectors and counters. */
export interface Writing extends FormulaWriting {
  /** Words that have a meaning in the language or its library, in small letters: no name of a program. */
  readonly reserved: ReadonlySet<string>;
  /** Element i of a vector, i counted from 0. */
  readonly element: (vector: string, i: number) => string;
  /** The same where i is the counter of a loop from 0, plus an integer. */
  readonly running: (vector: string, counter: string, ahead: number) => string;
  /** Element of a vector at an index, counted from 0, that is a formula of counters. */
  readonly at: (vector: string, index: string) => string;
  /** A counter of a loop as a double, plus an integer. */
  readonly counted: (counter: string, ahead: number) => string;
  /** Whether a formula of whole vectors is written without an index. */
  readonly isWhole: boolean;
  /** A constant of the problem by its name. */
  readonly constant: (name: string) => string;
  /** A routine of the program called with arguments. */
  readonly invoke: (name: string, inputs: readonly string[]) => string;
}

/** What a program is made of, in the order of its lines. */
export type CodeLine =
  /** A number or an element of a vector set to a value. */
  | { readonly kind: 'set'; readonly to: string; readonly value: string }
  /** A whole vector of the method set to a formula: of its element j, or of vectors where the language has such formulas. */
  | { readonly kind: 'vector'; readonly to: string; readonly width: number; readonly value: string }
  /** Lines for every value of a counter. */
  | {
      readonly kind: 'each';
      /** `j` where nothing is said. */
      readonly counter?: 'column';
      readonly from: number;
      readonly below: number;
      readonly body: readonly CodeLine[];
    }
  /** A loop that is left from within; it counts its rounds. */
  | { readonly kind: 'repeat'; readonly body: readonly CodeLine[] }
  /** Leaves the loop where all of these hold. */
  | { readonly kind: 'leave'; readonly when: readonly Condition[] }
  /** Ends the program with a message unless this holds. */
  | { readonly kind: 'fail'; readonly unless: Condition; readonly message: string }
  /** Solves matrix*x = right for so many unknowns; x replaces right. */
  | { readonly kind: 'solve'; readonly unknowns: number }
  /** A vector set by a routine: f(t, y) or a(t, x, v). */
  | {
      readonly kind: 'routine';
      readonly name: string;
      readonly inputs: readonly string[];
      readonly into: string;
    };

/** A comparison of two written numbers. */
export interface Condition {
  readonly left: string;
  readonly relation: '<=' | '>=' | '<';
  readonly right: string;
}

/** A vector with a length of its own. */
export interface Room {
  readonly name: string;
  readonly size: number;
}

/** One method as a routine that does one step. */
export interface StepRoutine {
  readonly name: string;
  /** The title of the method, and its text. */
  readonly title: string;
  readonly text: string;
  /** The vectors of its state: y, or x and v; each has `width` elements. */
  readonly vectors: readonly string[];
  /** Names kept from step to step, the newest of each first. */
  readonly kept: readonly Keep[];
  /** Names set on the way that are vectors, and those that are numbers. */
  readonly arrays: readonly string[];
  readonly numbers: readonly string[];
  /** Vectors of other lengths, for Newton's method; none where it is not used. */
  readonly rooms: readonly Room[];
  /** Whether it solves equations by Newton's method. */
  readonly solves: boolean;
  readonly body: readonly CodeLine[];
  /** The new values, by vector. */
  readonly next: readonly string[];
  /** Whether it needs the number n of the step, for the times of other grid points. */
  readonly usesNumber: boolean;
}

/** A value kept from the steps before. */
export interface Keep {
  readonly name: string;
  /** What moves into it at the end of a step: the name that was one step newer. */
  readonly from: string;
}

/** A number of a problem under its name. */
export interface Constant {
  readonly name: string;
  /** As it is computed. */
  readonly value: string;
  /** What is to be said of it beside. */
  readonly note: string | null;
  /** Whether it depends on others or on functions, so that it must be computed when the program runs. */
  readonly isComputed: boolean;
}

/** A whole program, before it is written in a language. */
export interface ProgramParts {
  readonly title: string;
  /** The text of the problem, with the comments of its author. */
  readonly statement: string;
  readonly independent: string;
  readonly components: readonly string[];
  /** Length of the state and of each vector of the method. */
  readonly size: number;
  readonly width: number;
  /** Where the elements of each vector are in the state. */
  readonly places: readonly (readonly number[])[];
  /** Parameters and both ends of the interval, each after those it depends on. */
  readonly constants: readonly Constant[];
  readonly h: number;
  /** Whether h is a size that was asked for and divides nothing, and not the length of the interval over the steps. */
  readonly isTyped: boolean;
  readonly steps: number;
  /** What becomes of a step size that does not divide the interval. */
  readonly lastStep: 'fit' | 'overrun';
  /** Lines that set the vectors of the method to the initial values. */
  readonly initial: readonly CodeLine[];
  /** Lines that set d from t and the vectors. */
  readonly rightHandSides: readonly CodeLine[];
  /** Lines that set d to how f moves at t and the vectors along others; null where nothing is solved. */
  readonly moved: readonly CodeLine[] | null;
  readonly rhsName: 'f' | 'a';
  /** Lines that set e from t; null where no exact solution is known. */
  readonly exact: readonly CodeLine[] | null;
  readonly step: StepRoutine;
  /** The starting method of a multistep method; null for a one-step method. */
  readonly starter: StepRoutine | null;
  readonly depth: number;
  /** Functions whose last digit may be another in this language. */
  readonly functions: readonly string[];
  /** The arithmetic of the program; null for doubles. */
  readonly decimal: DecimalPrecision | null;
}
