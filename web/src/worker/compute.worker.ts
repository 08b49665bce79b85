import { openStudy } from '@schritt/core/document';
import { checkExact, exactCheckSentence, type ParameterValues, parseProblem } from '@schritt/core/notation';
import { checkTyped, conclude, methodSigns, type MethodSign, portrait, type RungRun, typedCheckSentence } from '@schritt/core/study';
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

/** Pulls a piece of work to its end and tells now and then how far it is. */
function watched<T>(id: number, work: Generator<MethodSign, T>): T {
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

function* asSigns<T>(work: Generator<number, T>): Generator<MethodSign, T> {
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
      return { id, kind: 'method', run: watched(id, methodSigns(study, request.method)) };
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
