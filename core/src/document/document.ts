import type * as format from './format.ts';

/** What a class of the file format describes, as plain data. */
type Plain<T> = T extends string | number | boolean | undefined
  ? T
  : T extends readonly (infer E)[]
    ? readonly Plain<E>[]
    : { readonly [K in keyof T]: Plain<T[K]> };

/** A method of a study: title, text, and what a person decided about its rungs. */
export type MethodInStudy = Plain<format.MethodInStudy>;
/** A problem alone. */
export type ProblemDocument = Plain<format.ProblemDocument>;
/** A method alone. */
export type MethodDocument = Plain<format.MethodDocument>;
/** A study with its own copies of all texts. */
export type StudyDocument = Plain<format.StudyDocument>;
/** A document of any kind; `kind` tells which. */
export type SchrittDocument = StudyDocument | ProblemDocument | MethodDocument;
