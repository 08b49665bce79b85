import type { MethodInStudy, StudyDocument } from '@schritt/core/document';
import type { Method, Problem, Reading } from '@schritt/core/notation';
import { methodReader, problemReader, type ReadTexts } from '../worker/text-reader.ts';
import { useMemo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { withoutRemarks } from '../worker/early-study.ts';
import { hasErrors, useReader } from './use-reading.ts';
import { inStudy, type WorkingStudy } from './working-study.ts';

/**
 * A text as it was read, and the last reading of it that was good; a text that a worker is still at has no errors yet.
 */
export interface Read<T> {
  readonly now: Reading<T>;
  readonly good: { readonly text: string; readonly value: T } | null;
}

/** Whether a text has errors and was never good, so that there is nothing to be shown but the text. */
export function wasNeverGood<T>({ now, good }: Read<T>): boolean {
  return good === null && hasErrors(now);
}

/** A text of a study as it was read, by its key in the study. */
interface KeyedRead<T> extends Read<T> {
  readonly key: string;
  readonly title: string;
}

export type ReadMethod = KeyedRead<Method>;

export interface GoodStudy {
  readonly problem: Read<Problem>;
  readonly methods: readonly ReadMethod[];
  /** The study with the last good text everywhere, for computing; null before there was a good problem. */
  readonly document: StudyDocument | null;
  /** Keys of the methods of that document, in its order. */
  readonly keys: readonly string[];
  /** Their texts, in the same order. */
  readonly texts: readonly string[];
}

/** What a worker is still at. */
const UNREAD: Reading<never> = { ok: false, errors: [] };

/** The last reading of each text of a page, and the last good one: the same object as long as it is the same reading. */
class Memory<T> {
  readonly #last = new Map<string, KeyedRead<T>>();
  read(
    key: string,
    { title, text }: Pick<MethodInStudy, 'title' | 'text'>,
    texts: ReadTexts<T>,
  ): KeyedRead<T> {
    const last = this.#last.get(key);
    const now: Reading<T> = texts.read(text) ?? UNREAD;
    const before = last?.good ?? null;
    const isOther = now.ok && (before?.text !== text || before.value !== now.value);
    const good = isOther ? { text, value: now.value } : before;
    if (last?.title === title && last.now === now && last.good === good) return last;
    const read = { key, title, now, good };
    this.#last.set(key, read);
    return read;
  }
}

/** Reads all texts of a study and keeps the last good one of each while another is being typed. */
export function useGoodStudy(typed: WorkingStudy): GoodStudy {
  // a remark that is typed asks for no new numbers
  const study = useShallow(withoutRemarks<WorkingStudy>)(typed);
  const [problems] = useState(() => new Memory<Problem>());
  const [methods] = useState(() => new Memory<Method>());
  const [problemTexts, methodTexts] = [useReader(problemReader), useReader(methodReader)];
  return useMemo(() => {
    const readProblem = problems.read('problem', study.problem, problemTexts);
    const readMethods = study.methods.map((method) => methods.read(method.key, method, methodTexts));
    const good = readMethods.flatMap(({ key, title: name, good: text }) =>
      text === null ? [] : [{ key, title: name, text: text.text }],
    );
    const decided = new Map(study.methods.map((method) => [method.key, method]));
    const document: StudyDocument | null = readProblem.good && {
      ...study,
      problem: { title: study.problem.title, text: readProblem.good.text },
      methods: good.map((method) => inStudy({ ...decided.get(method.key), ...method })),
    };
    const [keys, texts] = [good.map(({ key }) => key), good.map(({ text }) => text)];
    return { problem: readProblem, methods: readMethods, document, keys, texts };
  }, [problems, methods, problemTexts, methodTexts, study]);
}
