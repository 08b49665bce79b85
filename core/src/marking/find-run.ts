import type { GridRequest } from '../run/grid.ts';
import { layLadder } from '../study/runs/ladder.ts';
import type { Study } from '../study/runs/study.ts';
import { rounded } from '../text/number-text.ts';
import { attempt } from '../text/refusal.ts';
import { agreementOf, markRequest, type MarkRequest } from './mark-column.ts';
import type { ReadingChoice } from './student-rows.ts';
import { type Layout, readSubmitted, type SubmittedText, submissionsOf } from './submission.ts';

/** A run that rows may belong to. */
export interface RunChoice {
  /** Place of the study in the list. */
  readonly study: number;
  readonly method: number;
  readonly gridRequest: GridRequest;
}

/** The run with which most rows agree. */
export interface FoundRun extends RunChoice {
  /** Rows after the first grid point, of all students that were looked at, that agree with the run. */
  readonly right: number;
  /** Those that agree with it, or with the step from the student's own rows. */
  readonly near: number;
  readonly of: number;
  /** Other runs with which as many agree. */
  readonly equals: readonly RunChoice[];
}

/** Students whose rows are compared, and steps of a run, at most. */
const MAX_STUDENTS = 12;
const MAX_STEPS = 5_000;
/** Rows that have to agree before a run counts as found: one may do so by chance. */
const MIN_NEAR = 2;

/** What is handed in, and how it is read. */
export interface FindRunOf {
  readonly studies: readonly Study[];
  readonly files: readonly SubmittedText[];
  readonly layout: Layout | null;
  readonly reading: ReadingChoice;
}

function requestOf(studies: readonly Study[], { study, method, gridRequest }: RunChoice): MarkRequest | null {
  const own = studies[study];
  if (own === undefined) return null;
  const request = attempt(() => markRequest(own, { method, gridRequest }));
  return request.ok && request.value.grid.steps <= MAX_STEPS ? request.value : null;
}

/** Step sizes that rows suggest: the distance of their times, and the interval divided by their number. */
function suggested(study: Study, { files, layout, reading }: FindRunOf): readonly GridRequest[] {
  const request = markRequest(study, { method: 0, gridRequest: { steps: 1 } });
  const understood = attempt(() => readSubmitted(files, { request, layout, roles: {}, reading }));
  if (!understood.ok) return [];
  const found: GridRequest[] = [];
  for (const { table, roles } of understood.value) {
    const times = table.columns[roles.findIndex(({ kind }) => kind === 't')]?.cells ?? [];
    const [first, second] = [times[0], times[1]];
    if (first != null && second != null && second.value > first.value)
      found.push({ h: rounded(second.value - first.value, 12) });
    const { length } = table.lines;
    for (const steps of [length - 1, length]) if (steps > 0) found.push({ steps });
  }
  return found;
}

/** Every method of a study at every step size that may be meant. */
function choicesOf(of: FindRunOf): readonly RunChoice[] {
  const { studies } = of;
  return studies.flatMap((study, place) => {
    const { problem, ladder, lastStep } = study;
    const rungs = attempt(() => layLadder(ladder, problem.start, problem.end, lastStep));
    const known = rungs.ok
      ? rungs.value.flatMap((rung): readonly GridRequest[] => (rung.ok ? [{ h: rung.grid.wished }] : []))
      : [];
    const seen = new Set<string>();
    const sizes = [...known, ...suggested(study, of)].filter((gridRequest) => {
      const request = requestOf(studies, { study: place, method: 0, gridRequest });
      if (request === null) return false;
      const key = `${request.grid.steps} ${request.grid.h}`;
      const isNew = !seen.has(key);
      seen.add(key);
      return isNew;
    });
    return study.methods.flatMap((_, method) =>
      sizes.map((gridRequest) => ({ study: place, method, gridRequest })),
    );
  });
}

/** The run with which more rows agree; one with which as many do is its equal. */
function better(best: FoundRun | null, other: FoundRun): FoundRun {
  if (best === null) return other;
  const more = other.near - best.near || other.right - best.right;
  if (more > 0) return other;
  const { study, method, gridRequest } = other;
  return more < 0 ? best : { ...best, equals: [...best.equals, { study, method, gridRequest }] };
}

/**
 * Finds the study, method and step size with which most rows agree; yields the part of the work that is done.
 *
 * @returns null where no two rows agree with any of them
 * @example [...findRun({ studies, files, layout: null, reading: AS_FOUND })]
 */
export function* findRun(all: FindRunOf): Generator<number, FoundRun | null> {
  // every file holds a student: no more of them are read, for every run anew
  const of = { ...all, files: all.files.slice(0, MAX_STUDENTS) };
  const choices = choicesOf(of);
  let best: FoundRun | null = null;
  for (const [i, choice] of choices.entries()) {
    const request = requestOf(of.studies, choice);
    if (request === null) continue;
    best = better(best, { ...choice, ...agreementOfAll(request, of), equals: [] });
    yield (i + 1) / choices.length;
  }
  return best === null || best.near < MIN_NEAR ? null : best;
}

function agreementOfAll(
  request: MarkRequest,
  { files, layout, reading }: FindRunOf,
): { readonly right: number; readonly near: number; readonly of: number } {
  const read = attempt(() => readSubmitted(files, { request, layout, roles: {}, reading }));
  const sum = { right: 0, near: 0, of: 0 };
  if (!read.ok) return sum;
  for (const submission of submissionsOf(read.value).slice(0, MAX_STUDENTS)) {
    const own = attempt(() => agreementOf(request, submission));
    if (!own.ok) continue;
    sum.right += own.value.right;
    sum.near += own.value.near;
    sum.of += own.value.of;
  }
  return sum;
}
