import {
  checkExact,
  checkTyped,
  conclude,
  exactCheckSentence,
  layLadder,
  type MethodRun,
  methodSteps,
  openStudy,
  type ParameterValues,
  parseProblem,
  portrait,
  type RungRun,
  type Study,
  typedCheckSentence,
} from '@schritt/core';
import { curvesOf } from './curves.ts';
import type { Answer, ProblemView, Request } from './messages.ts';
import { rowsWindow } from './rows.ts';

declare const self: DedicatedWorkerGlobalScope;

function problemView(text: string, parameters: ParameterValues): ProblemView | null {
  const reading = parseProblem(text, parameters);
  if (!reading.ok) return null;
  const problem = reading.value;
  const check = checkExact(problem);
  return {
    portrait: portrait(problem),
    check: check && { satisfied: check.satisfied, sentence: exactCheckSentence(problem, check) },
    typed: checkTyped(problem).map((typed) => ({
      satisfied: typed.agrees,
      sentence: typedCheckSentence(problem, typed),
    })),
  };
}

/** Milliseconds between two signs of life. */
const SIGN = 80;

/** How far a piece of work is, and a rung that has just been finished. */
interface Sign {
  readonly part: number;
  readonly finished: RungRun | null;
}

/** Pulls a piece of work to its end and tells now and then how far it is. */
function watched<T>(id: number, work: Generator<Sign, T>): T {
  let last = performance.now();
  let finished: RungRun[] = [];
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    if (next.value.finished !== null) finished.push(next.value.finished);
    const now = performance.now();
    if (now - last < SIGN) continue;
    last = now;
    self.postMessage({ id, kind: 'progress', part: next.value.part, finished } satisfies Answer);
    finished = [];
  }
}

/** One method over the whole ladder, with signs of how far it is. */
function* runMethod(study: Study, method: number): Generator<Sign, MethodRun> {
  const { problem, ladder, lastStep } = study;
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const all = Math.max(
    1,
    rungs.reduce((sum, rung) => sum + (rung.ok ? rung.grid.steps : 0), 0),
  );
  const chosen = study.methods[method];
  if (chosen === undefined) throw new RangeError('there is no such method');
  let done = 0;
  const work = methodSteps(study, rungs, chosen);
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    done += next.value.steps;
    yield { part: Math.min(1, done / all), finished: next.value.finished };
  }
}

function* asSigns<T>(work: Generator<number, T>): Generator<Sign, T> {
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    yield { part: next.value, finished: null };
  }
}

function answer(request: Request): Answer {
  const { id } = request;
  if (request.kind === 'problem') {
    const view = problemView(request.text, request.parameters);
    return view === null
      ? { id, kind: 'failed', why: 'the text cannot be read' }
      : { id, kind: 'problem', view };
  }
  const opened = openStudy(request.document);
  if (!opened.ok) return { id, kind: 'failed', why: 'a text of this study cannot be read' };
  const { study } = opened;
  switch (request.kind) {
    case 'method':
      return { id, kind: 'method', run: watched(id, runMethod(study, request.method)) };
    case 'conclude':
      return { id, kind: 'concluded', result: conclude(study, request.runs) };
    case 'rows':
      return { id, kind: 'rows', rows: rowsWindow(study, request.window) };
    case 'curves':
      return { id, kind: 'curves', curves: watched(id, asSigns(curvesOf(study, request.wish))) };
  }
}

self.addEventListener('message', (event: MessageEvent<Request>) => {
  try {
    self.postMessage(answer(event.data));
  } catch (thrown) {
    const why = thrown instanceof Error ? thrown.message : String(thrown);
    self.postMessage({ id: event.data.id, kind: 'failed', why } satisfies Answer);
  }
});
