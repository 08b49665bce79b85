import { ANY_FORMS } from './any-forms.ts';
import type { ForeignForm } from './form.ts';
import { METHOD_FORMS } from './method-forms.ts';
import { PROBLEM_FORMS } from './problem-forms.ts';

/** What kind of text a line belongs to. */
export type TextKind = 'problem' | 'method';

/** What is reported about a line in a foreign notation. */
export interface Foreign {
  readonly message: string;
  /** The part of the line that is reported, and what to write there. */
  readonly from: number;
  readonly to: number;
  readonly instead: string;
}

/** A line in the notation's own way, where each of its characters is in the line as it was typed, and what to say. */
export interface OwnLine {
  readonly text: string;
  readonly at: readonly number[];
  readonly foreign: Foreign | null;
}

/** The forms of a kind of text, with the places of their groups. */
function placed(forms: readonly ForeignForm[]): readonly ForeignForm[] {
  return forms.map((form) => ({ ...form, is: new RegExp(form.is.source, `${form.is.flags}d`) }));
}

const FORMS: Readonly<Record<TextKind, readonly ForeignForm[]>> = {
  problem: placed([...PROBLEM_FORMS, ...ANY_FORMS]),
  method: placed([...METHOD_FORMS, ...ANY_FORMS]),
};

/** Something that hardly a line of the notation has: lines without it are not looked at. */
const SUSPECT: Readonly<Record<TextKind, RegExp>> = {
  problem:
    /[:%!←√|@∈?$"[]|\/\/|\/\*|<-|==|>|\.\.|\.[*/^]|\.\s*$|[a-z\d]\s*\^\s*[-{(\d]|^\s*[=(]|'\s*,|^\s*d\s*\/|\b(?:def|lambda|solve|with|where|and|for|in|exact|then|let|const|var|double|float|int|auto|static|final|pow|[Mm]ath|np|numpy|cmath)\b/,
  method:
    /[:%!←√|$…}]|\d\.\d*f|\/\/|\/\*|<-|==|\+[=+]|\.\.|\.[*/^]|\.\s*$|[A-Za-z\d]\s*\^\s*[n{(\-\d]|^\s*[=(]|'\s*[_[(]|\*\s*(?:[=),;]|$)|n\s*(?:\+\s*[2-9]\s*)?[\])}]\s*=|[[(][01][\])]|n\s*\+\s*(?:1\s*\/|0?\.5|½)|[ywutx]_?0|=\s*(?:[inxt]|[tx][[_].*)\s*\+|\b(?:def|function|return|for|do|while|repeat|end\w*|next|done|let|const|var|double|float|int|auto|static|final|pow|feval|[Mm]ath|np|numpy|cmath)\b|^\s*h\b/,
};

/** Rewritings of one line, at most: a line may hold several of one kind. */
const MAX = 20;
/** Longest line that is looked at; nobody types a longer one. */
const LONGEST = 400;

/**
 * A line as the notation would have it, where it is written in a way of other texts, books or languages. The first
 * thing that must be reported is reported; its consequences are not.
 *
 * @returns null for a line that holds nothing foreign
 */
export function ownForm(line: string, kind: TextKind): OwnLine | null {
  const comment = line.indexOf('#');
  const typed = comment < 0 ? line : line.slice(0, comment);
  if (typed.length > LONGEST || !SUSPECT[kind].test(typed)) return null;
  let text = typed;
  let at: readonly number[] = Array.from({ length: typed.length + 1 }, (_, i) => i);
  let foreign: Foreign | null = null;
  let isChanged = false;
  for (let round = 0; round < MAX; round += 1) {
    const change = firstChange(text, kind);
    if (change === null) break;
    isChanged = true;
    const { from, to, message, instead } = change;
    const place = { from: at[from] ?? 0, to: at[to] ?? typed.length };
    foreign ??= message === null ? null : { ...place, message, instead };
    text = text.slice(0, from) + instead + text.slice(to);
    at = [...at.slice(0, from), ...Array.from(instead, () => place.from), ...at.slice(to)];
  }
  return isChanged ? { text, at, foreign } : null;
}

interface Change {
  readonly from: number;
  readonly to: number;
  readonly message: string | null;
  readonly instead: string;
}

function firstChange(text: string, kind: TextKind): Change | null {
  const comment = text.indexOf('#');
  const read = comment < 0 ? text : text.slice(0, comment);
  for (const { is, say, instead } of FORMS[kind]) {
    const found = is.exec(read);
    const [from, to] = found?.indices?.groups?.['at'] ?? found?.indices?.[0] ?? [];
    if (found === null || from === undefined || to === undefined) continue;
    const written = instead(found);
    if (read.slice(from, to) !== written)
      return { from, to, message: say?.(found) ?? null, instead: written };
  }
  return null;
}
