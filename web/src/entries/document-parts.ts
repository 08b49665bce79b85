import {
  arithmeticFields,
  MAX_METHODS,
  type MethodInStudy,
  type StudyDocument,
} from '@schritt/core/document';
import { ERROR_MEASURES, type ErrorChoice, errorChoice } from '@schritt/core/study';
import type { DocumentOf, Kind } from '../api/client.ts';
import { SCALES } from '../statement/error-settings.tsx';
import { ladderText } from '../statement/ladder-text.ts';
import { arithmeticText } from '../statement/arithmetic-choice.tsx';
import { LAST_STEPS } from '../statement/run-settings.tsx';

/** One of two copies of a document: that of this page, or the other one. */
export type Copy = 'mine' | 'theirs';

/** A part in which two copies of a document differ, as text; null in a copy that is without it. */
export interface DocumentPart {
  readonly key: string;
  readonly label: string;
  readonly mine: string | null;
  readonly theirs: string | null;
  /** The copy in which it was changed; this page's where both have changed it. */
  readonly changedIn: Copy;
}

/** The copy from which each part is taken, by its key; parts that are not named are those of this page. */
export type Choices = ReadonlyMap<string, Copy>;

type Texts = ReadonlyMap<string, { readonly label: string; readonly text: string }>;

/** Methods by what tells them apart: the title, and which of those with that title. */
function keyed(methods: readonly MethodInStudy[]): ReadonlyMap<string, MethodInStudy> {
  const seen = new Map<string, number>();
  return new Map(
    methods.map((method) => {
      const count = (seen.get(method.title) ?? 0) + 1;
      seen.set(method.title, count);
      return [`method ${count} ${method.title}`, method];
    }),
  );
}

function labelOf<T>(
  options: readonly { readonly value: T; readonly label: string }[],
  wanted: T | undefined,
): string | undefined {
  return options.find(({ value }) => value === wanted)?.label;
}

/** The text of a method, and its own arithmetic above it where it has one. */
function methodPart(method: MethodInStudy): string {
  const arithmetic = arithmeticText(method);
  return arithmetic === undefined ? method.text : `${arithmetic}\n\n${method.text}`;
}

/** Step sizes, with what methods exclude of them and fit over: both are places in the list. */
function stepSizesText({ ladder, methods }: StudyDocument): string {
  const lines = methods.flatMap(({ title, struck = [], window }) => [
    ...(struck.length === 0 ? [] : [`${title}: excluded ${struck.map((rung) => rung + 1).join(', ')}`]),
    ...(window === undefined ? [] : [`${title}: fit range ${window.from + 1} to ${window.to + 1}`]),
  ]);
  const kind = 'first' in ladder ? 'first h, ratio, number' : 'sizes' in ladder ? 'h' : 'N';
  return [`${kind}: ${ladderText(ladder)}`, ...lines].join('\n');
}

function errorText({ at, of, scale }: ErrorChoice): string {
  const where = typeof at === 'object' ? `at t = ${at.t}` : ERROR_MEASURES[at].label;
  return `${where}\nof: ${of}\nscale: ${labelOf(SCALES, scale)}`;
}

function studyTexts(study: StudyDocument): Texts {
  const { title, problem, methods, error, lastStep, start, note, measured, wished } = study;
  const entries: readonly (readonly [key: string, label: string, text: string | undefined])[] = [
    ['title', 'Title', title],
    ['problem', 'Problem', `${problem.title}\n\n${problem.text}`],
    ...[...keyed(methods)].map(
      ([key, method]) => [key, method.title || 'Untitled method', methodPart(method)] as const,
    ),
    ['methods', 'Order of the methods', [...keyed(methods).keys()].join('\n')],
    ['ladder', 'Step sizes', stepSizesText(study)],
    ['error', 'Error', error && errorText(errorChoice(error))],
    ['lastStep', 'Where h does not divide the interval', labelOf(LAST_STEPS, lastStep)],
    ['precision', 'Arithmetic', arithmeticText(study)],
    ['start', 'Starting method', start],
    ['wished', 'Error at which costs are compared', wished?.toString()],
    ['note', 'Note', note],
    ['measured', 'Measured points', measured],
  ];
  return new Map(
    entries.flatMap(([key, label, text]) => (text === undefined ? [] : [[key, { label, text }]])),
  );
}

function titledTexts({ title, text }: { readonly title: string; readonly text: string }): Texts {
  return new Map([
    ['title', { label: 'Title', text: title }],
    ['text', { label: 'Text', text }],
  ]);
}

const TEXTS: { readonly [K in Kind]: (document: DocumentOf<K>) => Texts } = {
  study: studyTexts,
  problem: titledTexts,
  method: titledTexts,
};

/** The methods that both copies have, in the order of the first. */
function commonOrder(of: Texts, other: Texts): string {
  const keys = of.get('methods')?.text.split('\n') ?? [];
  return keys.flatMap((key) => (other.has(key) ? [of.get(key)?.label] : [])).join('\n');
}

/**
 * The parts in which two copies of a document differ, in the order of the page.
 *
 * @param base the copy that both were made from
 */
export function differingParts<K extends Kind>(
  kind: K,
  mine: DocumentOf<K>,
  theirs: DocumentOf<K>,
  base: DocumentOf<K>,
): readonly DocumentPart[] {
  const [own, other, before] = [TEXTS[kind](mine), TEXTS[kind](theirs), TEXTS[kind](base)];
  return [...new Map([...own, ...other])].flatMap(([key, { label }]) => {
    // methods that are in one copy alone are parts of their own, and no other order
    const [mineText, theirsText] =
      key === 'methods'
        ? [commonOrder(own, other), commonOrder(other, own)]
        : [own.get(key)?.text ?? null, other.get(key)?.text ?? null];
    if (mineText === theirsText) return [];
    const isMineAsBefore = (own.get(key)?.text ?? null) === (before.get(key)?.text ?? null);
    return [
      {
        key,
        label,
        mine: mineText,
        theirs: theirsText,
        changedIn: isMineAsBefore ? ('theirs' as const) : ('mine' as const),
      },
    ];
  });
}

/** The methods of two copies, each from the copy that is chosen for it. */
function mergedMethods(
  mine: StudyDocument,
  theirs: StudyDocument,
  choices: Choices,
): readonly MethodInStudy[] {
  const [own, other] = [keyed(mine.methods), keyed(theirs.methods)];
  const [lead, rest] = choices.get('methods') === 'theirs' ? [other, own] : [own, other];
  const keys = new Set([...lead.keys(), ...rest.keys()]);
  const sizes = choices.get('ladder') === 'theirs' ? other : own;
  const isSame = JSON.stringify(mine.ladder) === JSON.stringify(theirs.ladder);
  return [...keys].flatMap((key) => {
    const found = (choices.get(key) === 'theirs' ? other : own).get(key);
    if (found === undefined) return [];
    const { struck: _struck, window: _window, ...method } = found;
    // places in a list of step sizes go with that list
    const { struck, window } = sizes.get(key) ?? (isSame ? found : {});
    return [
      {
        ...method,
        ...(struck === undefined ? {} : { struck }),
        ...(window === undefined ? {} : { window }),
      },
    ];
  });
}

function mergedStudy(mine: StudyDocument, theirs: StudyDocument, choices: Choices): StudyDocument {
  const of = (key: keyof StudyDocument): StudyDocument => (choices.get(key) === 'theirs' ? theirs : mine);
  const { error } = of('error');
  const { lastStep } = of('lastStep');
  const { start } = of('start');
  const { wished } = of('wished');
  const { note } = of('note');
  const { measured } = of('measured');
  return {
    schritt: 1,
    kind: 'study',
    title: of('title').title,
    problem: of('problem').problem,
    methods: mergedMethods(mine, theirs, choices),
    ladder: of('ladder').ladder,
    ...(lastStep === undefined ? {} : { lastStep }),
    ...(error === undefined ? {} : { error }),
    ...(start === undefined ? {} : { start }),
    ...arithmeticFields(of('precision')),
    ...(note === undefined ? {} : { note }),
    ...(measured === undefined ? {} : { measured }),
    ...(wished === undefined ? {} : { wished }),
  };
}

function mergedText<D extends { readonly title: string; readonly text: string }>(
  mine: D,
  theirs: D,
  choices: Choices,
): D {
  return {
    ...mine,
    title: (choices.get('title') === 'theirs' ? theirs : mine).title,
    text: (choices.get('text') === 'theirs' ? theirs : mine).text,
  };
}

const MERGED: {
  readonly [K in Kind]: (mine: DocumentOf<K>, theirs: DocumentOf<K>, choices: Choices) => DocumentOf<K>;
} = { study: mergedStudy, problem: mergedText, method: mergedText };

/** One document of two copies, each part from the copy that is chosen for it. */
export function mergedDocument<K extends Kind>(
  kind: K,
  mine: DocumentOf<K>,
  theirs: DocumentOf<K>,
  choices: Choices,
): DocumentOf<K> {
  return MERGED[kind](mine, theirs, choices);
}

/** Why a document cannot be kept, in a sentence; null where it can. */
export function mergeFault(document: DocumentOf<Kind>): string | null {
  if (document.kind !== 'study' || document.methods.length <= MAX_METHODS) return null;
  return `A study has at most ${MAX_METHODS} methods; these choices make ${document.methods.length}.`;
}
