import { openStudy, runStudy } from '@schritt/core';
import { curvesOf } from './curves.ts';
import type { Answer, Request } from './messages.ts';

declare const self: DedicatedWorkerGlobalScope;

function answer(request: Request): Answer {
  const { id } = request;
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
