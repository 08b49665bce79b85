import {
  checkExact,
  checkTyped,
  exactCheckSentence,
  openStudy,
  type ParameterValues,
  parseProblem,
  portrait,
  studySteps,
  typedCheckSentence,
} from '@schritt/core';
import { curvesOf } from './curves.ts';
import type { Answer, ProblemView, Request } from './messages.ts';

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

/** Pulls a piece of work to its end and tells now and then how far it is. */
function watched<P, T>(id: number, work: Generator<P, T>, partOf: (sign: P) => number): T {
  let last = performance.now();
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    const now = performance.now();
    if (now - last < SIGN) continue;
    last = now;
    self.postMessage({ id, kind: 'progress', part: partOf(next.value) } satisfies Answer);
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
  if (request.kind === 'study')
    return { id, kind: 'study', result: watched(id, studySteps(study), ({ part }) => part) };
  return { id, kind: 'curves', curves: watched(id, curvesOf(study, request.wish), (part) => part) };
}

self.addEventListener('message', (event: MessageEvent<Request>) => {
  try {
    self.postMessage(answer(event.data));
  } catch (thrown) {
    const why = thrown instanceof Error ? thrown.message : String(thrown);
    self.postMessage({ id: event.data.id, kind: 'failed', why } satisfies Answer);
  }
});
