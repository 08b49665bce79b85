import { PRECISION } from '../compile/precision.ts';
import { LAST_STEP } from '../run/grid.ts';
import { ERROR } from '../study/runs/error-choice.ts';
import { LADDER, MOST_RUNGS } from '../study/runs/ladder.ts';
import { constant, list, named, number, object, type Of, text, type ValueFault } from '../text/form.ts';
import { LONGEST_TEXT } from '../text/place.ts';
import { LONGEST_MEASURED } from './measured.ts';

/** Most methods of a study. */
const MOST_METHODS = 24;
/** Longest note. */
export const LONGEST_NOTE = 2_000;
/** Longest title. */
export const LONGEST_TITLE = 200;

const VERSION = constant(1);
const TITLE = named('title', text(LONGEST_TITLE));
const TEXT = named('text', text(LONGEST_TEXT, { description: 'in the notation of docs/notation.md' }));
const TITLED_TEXT = named('titledText', object({ title: TITLE, text: TEXT }));

const RUNG = named(
  'rung',
  number(
    (x) => Number.isSafeInteger(x) && x >= 0 && x < MOST_RUNGS,
    `the number of a rung, from 0 to ${MOST_RUNGS - 1}`,
    {
      type: 'integer',
      minimum: 0,
      maximum: MOST_RUNGS - 1,
      description: 'a rung of the ladder, counted from 0',
    },
  ),
);

/** First and last rung that count; without it the rules choose. */
const WINDOW = object({ from: RUNG, to: RUNG }, {}, ({ from, to }, place, faults) => {
  if (from > to) faults.note(place, `from ${from} is after to ${to}`);
});

/** A method inside a study, with what a person decided about its rungs: which do not count, and the window of those that do. */
const METHOD_IN_STUDY = named(
  'methodInStudy',
  object({ title: TITLE, text: TEXT }, { struck: list(RUNG, MOST_RUNGS), window: WINDOW }),
);

/** A problem or a method as a file of its own. */
export const PROBLEM = named(
  'problem',
  object({ schritt: VERSION, kind: constant('problem'), title: TITLE, text: TEXT }),
);
export const METHOD = named(
  'method',
  object({ schritt: VERSION, kind: constant('method'), title: TITLE, text: TEXT }),
);

/** A study as a file: it holds its own copies of the texts. */
export const STUDY = named(
  'study',
  object(
    {
      schritt: VERSION,
      kind: constant('study'),
      title: TITLE,
      problem: TITLED_TEXT,
      methods: list(METHOD_IN_STUDY, MOST_METHODS),
      ladder: LADDER,
    },
    {
      lastStep: LAST_STEP,
      error: ERROR,
      // what does the first steps of formulas that reach back, instead of what they name
      start: text(LONGEST_TITLE, { description: 'a method by name, or exact' }),
      precision: PRECISION,
      // the error at which the costs of methods are compared; without it one that all of them reach
      // what to look at, in the words of who made the study
      note: text(LONGEST_NOTE, { description: 'what to look at, for people' }),
      measured: text(LONGEST_MEASURED, {
        description: 'measured points in columns: the time, then components',
      }),
      wished: number((x) => x > 0, 'a positive number', { type: 'number', exclusiveMinimum: 0 }),
    },
  ),
);

/** A text with its title. */
export type TitledText = Of<typeof TITLED_TEXT>;
/** A method of a study: title, text, and what a person decided about its rungs. */
export type MethodInStudy = Of<typeof METHOD_IN_STUDY>;
/** A problem alone. */
export type ProblemDocument = Of<typeof PROBLEM>;
/** A method alone. */
export type MethodDocument = Of<typeof METHOD>;
/** A study with its own copies of all texts. */
export type StudyDocument = Of<typeof STUDY>;
/** A document of any kind; `kind` tells which. */
export type Document = StudyDocument | ProblemDocument | MethodDocument;

/** What is wrong with a file, at a place such as `methods[1].text`, or a line and column where it is no JSON. */
export type DocumentError = ValueFault;

export type DocumentReading =
  | { readonly ok: true; readonly document: Document }
  | { readonly ok: false; readonly errors: readonly DocumentError[] };
