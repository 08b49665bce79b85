import {
  type StudyDocument,
  studyReport,
  studyTable,
  type TakenRun,
  writeTable,
} from '@schritt/core/document';
import { useMemo } from 'react';
import { useDesk } from '../desk/desk.ts';
import { type Ask, useComputed } from '../worker/use-work.ts';
import type { Choice } from './choice.ts';

/** What a choice comes to: the text, or why there is none; neither while it is made. */
export interface Taken {
  readonly text: string | null;
  readonly why: string | null;
}

function runOf({ what, table, language, digits, mark, part }: Choice, method: number, h: number): TakenRun {
  const run = { method, wish: { h } };
  return what === 'program'
    ? { ...run, what, as: language }
    : { ...run, what: 'rows', as: table, digits, options: { mark, part } };
}

/** Tables of the study from the numbers of the page; rows and programs from a worker. */
export function useTaken(choice: Choice, method: number): Taken {
  const { good, results, study, chosen } = useDesk();
  const { what, table, digits, mark, part } = choice;
  const isRun = what === 'rows' || what === 'program';
  const problem = good.problem.good?.value ?? null;
  const own = useMemo(() => {
    if (what === 'rows' || what === 'program' || results.value === null || problem === null) return null;
    const report = studyReport(study.title, problem, results.value.result);
    return writeTable(studyTable(report, what, digits), table, { mark, part });
  }, [results.value, problem, study.title, what, table, digits, mark, part]);
  const h = chosen.grid?.wished ?? null;
  const { document }: { readonly document: StudyDocument | null } = good;
  const ask = useMemo((): Ask<string> | null => {
    if (!isRun || document === null || h === null) return null;
    const taken = runOf(choice, method, h);
    return (computer, progress) => computer.ask('taken', { document, taken }, progress);
  }, [isRun, document, h, choice, method]);
  const { value, part: underWay, why } = useComputed(ask);
  if (!isRun) return { text: own, why: own === null ? 'the study has no numbers yet' : null };
  if (why !== null) return { text: null, why };
  return { text: underWay === null ? value : null, why: h === null ? 'there is no step size' : null };
}
