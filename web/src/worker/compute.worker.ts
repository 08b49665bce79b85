import {
  checkExact,
  exactCheckSentence,
  openStudy,
  type ParameterValues,
  parseProblem,
  portrait,
  runStudy,
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
  };
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
  if (request.kind === 'study') return { id, kind: 'study', result: runStudy(opened.study) };
  return { id, kind: 'curves', curves: curvesOf(opened.study, request.wish) };
}

self.addEventListener('message', (event: MessageEvent<Request>) => {
  try {
    self.postMessage(answer(event.data));
  } catch (thrown) {
    const why = thrown instanceof Error ? thrown.message : String(thrown);
    self.postMessage({ id: event.data.id, kind: 'failed', why } satisfies Answer);
  }
});
