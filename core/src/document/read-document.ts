import { LONGEST_TEXT, lineStarts, placeOf } from '../text/place.ts';
import { DEFAULT_ERROR, type ErrorChoice } from '../study/runs/error-choice.ts';
import { type Amount, amountValue, type Ladder, MOST_RUNGS } from '../study/runs/ladder.ts';
import { ValueCheck } from './check-value.ts';
import {
  type Document,
  type DocumentReading,
  LONGEST_TITLE,
  MOST_METHODS,
  type MethodInStudy,
  type StudyDocument,
  type TitledText,
} from './document.ts';

function titledText(check: ValueCheck, value: unknown, place: string): TitledText {
  const fields = check.fields(value, place, ['title', 'text']);
  return {
    title: check.text(fields?.get('title'), `${place}.title`, LONGEST_TITLE),
    text: check.text(fields?.get('text'), `${place}.text`, LONGEST_TEXT),
  };
}

const isPlace = (x: number): boolean => Number.isSafeInteger(x) && x >= 0 && x < MOST_RUNGS;
const PLACE = `the number of a rung, from 0 to ${MOST_RUNGS - 1}`;

function readWindow(check: ValueCheck, value: unknown, place: string): NonNullable<MethodInStudy['window']> {
  const fields = check.fields(value, place, ['from', 'to']);
  const from = check.number(fields?.get('from'), `${place}.from`, isPlace, PLACE);
  const to = check.number(fields?.get('to'), `${place}.to`, isPlace, PLACE);
  if (from > to) check.note(place, `from ${from} is after to ${to}`);
  return { from, to };
}

function methodInStudy(check: ValueCheck, value: unknown, place: string): MethodInStudy {
  const fields = check.fields(value, place, ['title', 'text'], ['struck', 'window']);
  const struck = fields?.get('struck');
  const window = fields?.get('window');
  return {
    title: check.text(fields?.get('title'), `${place}.title`, LONGEST_TITLE),
    text: check.text(fields?.get('text'), `${place}.text`, LONGEST_TEXT),
    ...(struck === undefined
      ? {}
      : {
          struck: check.list(struck, `${place}.struck`, MOST_RUNGS, (v, p) =>
            check.number(v, p, isPlace, PLACE),
          ),
        }),
    ...(window === undefined ? {} : { window: readWindow(check, window, `${place}.window`) }),
  };
}

function amount(check: ValueCheck, value: unknown, place: string): Amount {
  if (value === undefined) return NaN;
  if (typeof value === 'string' && value.length <= 200) {
    try {
      const h = amountValue(value);
      if (h > 0 && Number.isFinite(h)) return value;
      check.note(place, `"${value}" must be a positive number, and it is ${h}`);
    } catch (thrown) {
      if (!(thrown instanceof RangeError)) throw thrown;
      check.note(place, thrown.message);
    }
    return NaN;
  }
  return check.number(value, place, (x) => x > 0, 'a positive number or an expression such as "pi/8"');
}

const isCount = (x: number): boolean => Number.isSafeInteger(x) && x >= 1;

function readLadder(check: ValueCheck, value: unknown): Ladder {
  const place = 'ladder';
  const keys = typeof value === 'object' && value !== null ? Object.keys(value) : [];
  if (keys.includes('steps')) {
    const fields = check.fields(value, place, ['steps']);
    return {
      steps: check.list(fields?.get('steps'), 'ladder.steps', MOST_RUNGS, (v, p) => amount(check, v, p)),
    };
  }
  if (keys.includes('intervals')) {
    const fields = check.fields(value, place, ['intervals']);
    return {
      intervals: check.list(fields?.get('intervals'), 'ladder.intervals', MOST_RUNGS, (v, p) =>
        check.number(v, p, isCount, 'a whole number from 1 on'),
      ),
    };
  }
  const fields = check.fields(value, place, ['first', 'factor', 'rungs']);
  return {
    first: amount(check, fields?.get('first'), 'ladder.first'),
    factor: check.number(fields?.get('factor'), 'ladder.factor', (x) => x > 1, 'a number above 1'),
    rungs: check.number(
      fields?.get('rungs'),
      'ladder.rungs',
      (x) => isCount(x) && x <= MOST_RUNGS,
      `a whole number from 1 to ${MOST_RUNGS}`,
    ),
  };
}

function readError(check: ValueCheck, value: unknown): ErrorChoice {
  const fields = check.fields(value, 'error', [], ['at', 'of', 'scale']);
  const at = fields?.get('at') ?? DEFAULT_ERROR.at;
  const readAt = (): ErrorChoice['at'] => {
    if (typeof at !== 'object')
      return (
        check.oneOf<'end' | 'max' | 'rms' | 'local'>(at, 'error.at', ['end', 'max', 'rms', 'local']) ?? 'end'
      );
    const inner = check.fields(at, 'error.at', ['t']);
    return { t: check.number(inner?.get('t'), 'error.at.t', () => true, 'a number') };
  };
  const of = fields?.get('of');
  const scale = fields?.get('scale');
  return {
    at: readAt(),
    of: of === undefined ? DEFAULT_ERROR.of : check.text(of, 'error.of', LONGEST_TITLE),
    scale:
      scale === undefined
        ? DEFAULT_ERROR.scale
        : (check.oneOf(scale, 'error.scale', ['absolute', 'relative', 'digits', 'places']) ?? 'absolute'),
  };
}

function readStudy(check: ValueCheck, value: unknown): StudyDocument {
  const fields = check.fields(
    value,
    '',
    ['schritt', 'kind', 'title', 'problem', 'methods', 'ladder'],
    ['lastStep', 'error', 'start', 'precision', 'wished'],
  );
  const lastStep = fields?.get('lastStep');
  const error = fields?.get('error');
  const last =
    lastStep === undefined ? undefined : check.oneOf(lastStep, 'lastStep', ['fit', 'shorten', 'overrun']);
  const start = fields?.get('start');
  const wished = fields?.get('wished');
  const given = fields?.get('precision');
  const precision = given === undefined ? undefined : check.oneOf(given, 'precision', ['double', 'single']);
  return {
    schritt: 1,
    kind: 'study',
    title: check.text(fields?.get('title'), 'title', LONGEST_TITLE),
    problem: titledText(check, fields?.get('problem') ?? {}, 'problem'),
    methods: check.list(fields?.get('methods'), 'methods', MOST_METHODS, (v, p) =>
      methodInStudy(check, v, p),
    ),
    ladder: readLadder(check, fields?.get('ladder') ?? {}),
    ...(last === undefined ? {} : { lastStep: last }),
    ...(error === undefined ? {} : { error: readError(check, error) }),
    ...(start === undefined ? {} : { start: check.text(start, 'start', LONGEST_TITLE) }),
    ...(precision === undefined ? {} : { precision }),
    ...(wished === undefined
      ? {}
      : { wished: check.number(wished, 'wished', (x) => x > 0, 'a positive number') }),
  };
}

function readValue(check: ValueCheck, value: unknown): Document | null {
  const entries =
    typeof value === 'object' && value !== null
      ? new Map<string, unknown>(Object.entries(value))
      : new Map<string, unknown>();
  if (entries.get('schritt') !== 1) {
    check.note(
      'schritt',
      entries.has('schritt')
        ? 'must be 1, the version of the format'
        : 'is missing; a file of this format begins with "schritt": 1',
    );
    return null;
  }
  const kind = check.oneOf(entries.get('kind'), 'kind', ['study', 'problem', 'method']);
  if (kind === undefined) return null;
  if (kind === 'study') return readStudy(check, value);
  const fields = check.fields(value, '', ['schritt', 'kind', 'title', 'text']);
  const title = check.text(fields?.get('title'), 'title', LONGEST_TITLE);
  const text = check.text(fields?.get('text'), 'text', LONGEST_TEXT);
  return { schritt: 1, kind, title, text };
}

/** Checks a value, such as one read from JSON, against the file format; every fault is listed with its place. */
export function readDocument(value: unknown): DocumentReading {
  const check = new ValueCheck();
  const document = readValue(check, value);
  if (document === null || check.errors.length > 0) return { ok: false, errors: check.errors };
  return { ok: true, document };
}

/** Reads the text of a `*.schritt.json` file. */
export function readDocumentText(text: string): DocumentReading {
  try {
    return readDocument(JSON.parse(text));
  } catch (thrown) {
    if (!(thrown instanceof SyntaxError)) throw thrown;
    return { ok: false, errors: [jsonError(text, thrown.message)] };
  }
}

function jsonError(text: string, message: string): { readonly place: string; readonly message: string } {
  const offset = Number(/position (\d+)/.exec(message)?.[1] ?? text.length);
  const { line, column } = placeOf(lineStarts(text), Math.min(offset, text.length));
  return { place: `line ${line}, column ${column}`, message: `this is not JSON: ${message}` };
}
