import 'reflect-metadata';
import { plainToInstance, Transform } from 'class-transformer';
import { Equals } from 'class-validator';
import { JSONSchema } from 'class-validator-jsonschema';
import { BINARY_PRECISIONS, type BinaryPrecision } from '../compile/precision.ts';
import {
  FEWEST_DIGITS,
  MOST_DIGITS,
  ROUNDED,
  type Rounded,
  type Rounding,
  ROUNDINGS,
} from '../decimal/decimal-precision.ts';
import { LAST_STEPS, type LastStep } from '../run/grid.ts';
import { MEASURE_NAMES } from '../study/measures/measures.ts';
import { type ErrorChoice, ERROR_SCALES } from '../study/runs/error-choice.ts';
import { type Amount, amountFault, type Ladder, LONGEST_AMOUNT, MAX_RUNGS } from '../study/runs/ladder.ts';
import { LONGEST_TEXT } from '../text/place.ts';
import {
  Follows,
  isObject,
  ListOf,
  Nested,
  numberRule,
  ObjectOf,
  ObjectsOf,
  OneOf,
  Optional,
  referenceTo,
  type Rule,
  TextField,
} from './format-decorators.ts';
import { LONGEST_MEASURED } from './measured.ts';
import { LONGEST_NOTE, LONGEST_TITLE, MAX_METHODS } from './document-limits.ts';

// The one definition of the file format: types, reader, JSON Schema and the schemas of the API derive from these
// classes.

/** A class is an object of no other fields. */
const Closed = (): ClassDecorator => JSONSchema({ additionalProperties: false });

const NOTATION = 'in the notation described in docs/notation.md';

const STEP_SIZE_INDEX: Rule = numberRule(
  (x) => Number.isSafeInteger(x) && x >= 0 && x < MAX_RUNGS,
  `the index of a step size, from 0 to ${MAX_RUNGS - 1}`,
  {
    type: 'integer',
    minimum: 0,
    maximum: MAX_RUNGS - 1,
    description: 'a step size of the study, counted from 0',
  },
);

const POSITIVE = numberRule((x) => x > 0, 'a positive number', { type: 'number', exclusiveMinimum: 0 });

const STEPS = numberRule((x) => Number.isSafeInteger(x) && x >= 1, 'a positive integer', {
  type: 'integer',
  minimum: 1,
});

const AMOUNT: Rule = {
  name: 'amount',
  fault: amountFault,
  schema: {
    oneOf: [
      { type: 'number', exclusiveMinimum: 0 },
      { type: 'string', minLength: 1, maxLength: LONGEST_AMOUNT },
    ],
    description: 'a number, or an expression such as "pi/8"',
  },
};

/** The arithmetic of runs as a file names it: binary, or with a number of significant decimal digits. */
export type PrecisionInFile = BinaryPrecision | { readonly digits: number };

const BINARY = BINARY_PRECISIONS.map((name) => `"${name}"`).join(', ');

/** What is wrong with the arithmetic of a file; null where nothing is. */
function precisionFault(value: unknown): string | null {
  if (BINARY_PRECISIONS.some((name) => name === value)) return null;
  if (!isObject(value)) return `must be one of ${BINARY}, or an object with a number of digits`;
  const [[key, digits] = [], ...others] = Object.entries(value);
  const isWhole = typeof digits === 'number' && Number.isSafeInteger(digits);
  return key === 'digits' &&
    others.length === 0 &&
    isWhole &&
    digits >= FEWEST_DIGITS &&
    digits <= MOST_DIGITS
    ? null
    : `must be one of ${BINARY}, or { "digits": ... } with an integer from ${FEWEST_DIGITS} to ${MOST_DIGITS}`;
}

const PRECISION: Rule = {
  name: 'precision',
  fault: precisionFault,
  schema: {
    oneOf: [
      { type: 'string', enum: [...BINARY_PRECISIONS] },
      {
        type: 'object',
        additionalProperties: false,
        required: ['digits'],
        properties: { digits: { type: 'integer', minimum: FEWEST_DIGITS, maximum: MOST_DIGITS } },
      },
    ],
    description: 'the arithmetic of runs: binary, or with a number of significant decimal digits',
  },
};

/** A text with its title. */
@Closed()
export class TitledText {
  @TextField(LONGEST_TITLE) readonly title!: string;
  @TextField(LONGEST_TEXT, NOTATION) readonly text!: string;
}

/** First and last rung that count; without it the rules choose. */
@Closed()
export class FitWindow {
  @Follows(STEP_SIZE_INDEX) readonly from!: number;
  @Follows({
    ...STEP_SIZE_INDEX,
    fault: (value, object) => {
      const from: unknown = 'from' in object ? object.from : undefined;
      const isBefore = typeof from === 'number' && typeof value === 'number' && value < from;
      return STEP_SIZE_INDEX.fault(value, object) ?? (isBefore ? `must not be below from, ${from}` : null);
    },
  })
  readonly to!: number;
}

/** A method of a study: title, text, and what a person decided about its rungs. */
@Closed()
export class MethodInStudy extends TitledText {
  /** Rungs that do not count. */
  @Optional() @ListOf(STEP_SIZE_INDEX, MAX_RUNGS) readonly struck?: readonly number[];
  @Optional() @ObjectOf(() => FitWindow) readonly window?: FitWindow;
  /** The arithmetic of this method's runs, where it is another one than that of the study. */
  @Optional() @Follows(PRECISION) readonly precision?: PrecisionInFile;
  @Optional() @OneOf(ROUNDINGS) readonly rounding?: Rounding;
  @Optional() @OneOf(ROUNDED) readonly rounded?: Rounded;
}

/** A ladder by step sizes. */
@Closed()
class LadderBySizes {
  @ListOf(AMOUNT, MAX_RUNGS) readonly sizes!: readonly Amount[];
}

/** A ladder by numbers of steps. */
@Closed()
class LadderByCounts {
  @ListOf(STEPS, MAX_RUNGS) readonly counts!: readonly number[];
}

/** A ladder by the largest step size, divided again and again by a factor. */
@Closed()
class LadderByFactor {
  @Follows(AMOUNT) readonly first!: Amount;
  @Follows(numberRule((x) => x > 1, 'a number above 1', { type: 'number', exclusiveMinimum: 1 }))
  readonly factor!: number;
  @Follows(
    numberRule(
      (x) => Number.isSafeInteger(x) && x >= 1 && x <= MAX_RUNGS,
      `an integer from 1 to ${MAX_RUNGS}`,
      { type: 'integer', minimum: 1, maximum: MAX_RUNGS },
    ),
  )
  readonly rungs!: number;
}

/** Step sizes by the name that older files have for them. */
@Closed()
class LadderBySteps {
  @ListOf(AMOUNT, MAX_RUNGS) readonly steps!: readonly Amount[];
}

/** Numbers of steps by the name that older files have for them. */
@Closed()
class LadderByIntervals {
  @ListOf(STEPS, MAX_RUNGS) readonly intervals!: readonly number[];
}

const LADDERS = {
  sizes: LadderBySizes,
  counts: LadderByCounts,
  steps: LadderBySteps,
  intervals: LadderByIntervals,
} as const;

function ladderClass(value: object): new () => object {
  return Object.entries(LADDERS).find(([field]) => Object.hasOwn(value, field))?.[1] ?? LadderByFactor;
}

const TIMES = MEASURE_NAMES.map((time) => `"${time}"`).join(', ');

/** Whether a value is an object of one field, a finite number t. */
function isTime(value: unknown): boolean {
  if (!isObject(value)) return false;
  const [[key, t] = [], ...others] = Object.entries(value);
  return key === 't' && typeof t === 'number' && Number.isFinite(t) && others.length === 0;
}

const TIME_OF_ERROR: Rule = {
  name: 'timeOfError',
  fault: (value) =>
    isTime(value) || MEASURE_NAMES.some((time) => time === value)
      ? null
      : `must be one of ${TIMES}, or an object with a number t`,
  schema: {
    oneOf: [
      { type: 'string', enum: [...MEASURE_NAMES] },
      { type: 'object', additionalProperties: false, required: ['t'], properties: { t: { type: 'number' } } },
    ],
  },
};

/** The error of a file; what it leaves out is taken from the default. */
@Closed()
class ErrorInStudy {
  @Optional() @Follows(TIME_OF_ERROR) readonly at?: ErrorChoice['at'];
  @Optional() @TextField(LONGEST_TITLE, 'norm, or the name of a component') readonly of?: string;
  @Optional() @OneOf(ERROR_SCALES) readonly scale?: ErrorChoice['scale'];
}

@Closed()
class Head {
  @Equals(1, { message: 'must be 1, the version of the format' }) readonly schritt!: 1;
  @TextField(LONGEST_TITLE) readonly title!: string;
}

/** A problem alone. */
@Closed()
export class ProblemDocument extends Head {
  @Equals('problem') readonly kind!: 'problem';
  @TextField(LONGEST_TEXT, NOTATION) readonly text!: string;
}

/** A method alone. */
@Closed()
export class MethodDocument extends Head {
  @Equals('method') readonly kind!: 'method';
  @TextField(LONGEST_TEXT, NOTATION) readonly text!: string;
}

/** A study with its own copies of all texts. */
@Closed()
export class StudyDocument extends Head {
  @Equals('study') readonly kind!: 'study';
  @ObjectOf(() => TitledText) readonly problem!: TitledText;
  @ObjectsOf(() => MethodInStudy, MAX_METHODS) readonly methods!: readonly MethodInStudy[];
  @Transform(({ value }: { readonly value: unknown }) =>
    isObject(value) ? plainToInstance(ladderClass(value), value) : value,
  )
  @Nested(
    () => ({ oneOf: [...Object.values(LADDERS), LadderByFactor].map(referenceTo) }),
    'an object with sizes, counts, or first, factor and rungs',
  )
  readonly ladder!: Ladder;
  @Optional() @OneOf(LAST_STEPS) readonly lastStep?: LastStep;
  @Optional() @ObjectOf(() => ErrorInStudy) readonly error?: ErrorInStudy;
  /** The starting method of multistep methods, instead of the one that they name. */
  @Optional() @TextField(LONGEST_TITLE, 'a method by name, or exact') readonly start?: string;
  @Optional() @Follows(PRECISION) readonly precision?: PrecisionInFile;
  /** How results are rounded to decimal digits; to the nearest, a tie to the even digit, without it. */
  @Optional() @OneOf(ROUNDINGS) readonly rounding?: Rounding;
  /** What is rounded to decimal digits: every operation, without it, or the values that a step stores. */
  @Optional() @OneOf(ROUNDED) readonly rounded?: Rounded;
  /** What to look at, in the words of who made the study. */
  @Optional() @TextField(LONGEST_NOTE, 'a note for the reader') readonly note?: string;
  @Optional()
  @TextField(LONGEST_MEASURED, 'measured points in columns: the time, then components')
  readonly measured?: string;
  /** The error at which the costs of methods are compared; without it one that all of them reach. */
  @Optional() @Follows(POSITIVE) readonly wished?: number;
}

/** The class of each kind of document. */
export const DOCUMENT_CLASSES = {
  study: StudyDocument,
  problem: ProblemDocument,
  method: MethodDocument,
} as const;

/** All classes of the format, each of which has a schema of its own. */
export const FORMAT_CLASSES: readonly (new () => object)[] = [
  StudyDocument,
  ProblemDocument,
  MethodDocument,
  TitledText,
  MethodInStudy,
  FitWindow,
  ...Object.values(LADDERS),
  LadderByFactor,
  ErrorInStudy,
];
