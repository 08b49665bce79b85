import { runKey, type StudyDocument } from '@schritt/core/document';
import { findSlips, inspectMethod, testBench } from '@schritt/core/inspect';
import {
  checkExact,
  exactCheckSentence,
  type ParameterValues,
  parseMethod,
  parseProblem,
} from '@schritt/core/notation';
import { Refusal } from '@schritt/core/text';
import {
  checkTyped,
  conclude,
  curvesOf,
  estimatedSeconds,
  finish,
  limitsOf,
  methodSigns,
  type MethodRun,
  type MethodSign,
  portrait,
  type RungRun,
  runStudy,
  typedCheckSentence,
  type Study,
  stepsForError,
} from '@schritt/core/study';
import type { Answers, Done, Kind, Message, ProblemView, Questions, WorkerRequest } from './messages.ts';
import type { MarkingAnswers, MarkingKind, MarkingQuestions } from './marking-answers.ts';
import { methodFacts } from './method-facts.ts';
import { openedStudy } from './opened-study.ts';
import { methodOf, regionOf, spectrumOf } from './stability.ts';
import { profileOf } from './profile.ts';
import { provedTexts } from './proved.ts';
import { rowsWindow } from './rows.ts';
import { sideRows } from './side-rows.ts';
import { stepView } from './step-view.ts';
import { Rehearsal } from './rehearsal.ts';

declare const self: DedicatedWorkerGlobalScope;

function problemView(text: string, parameters: ParameterValues): ProblemView {
  const reading = parseProblem(text, parameters);
  if (!reading.ok) throw new Refusal('text', 'the text cannot be read');
  const problem = reading.value;
  const check = checkExact(problem);
  return {
    portrait: portrait(problem),
    check: check && {
      satisfied: check.satisfied,
      sentence: exactCheckSentence({ ...problem, equations: problem.unknowns.length }, check),
    },
    typed: checkTyped(problem).map((typed) => ({
      satisfied: typed.agrees,
      sentence: typedCheckSentence(problem, typed),
    })),
  };
}

/** Milliseconds between two progress reports. */
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
    self.postMessage({ id, kind: 'progress', part: next.value.part, finished } satisfies Message);
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

function* wholeSigns(
  study: Study,
  known: readonly (MethodRun | null)[],
): Generator<MethodSign, readonly MethodRun[]> {
  const runs: MethodRun[] = [];
  for (const [method, run] of known.entries()) {
    runs.push(run ?? (yield* methodSigns(study, method)));
    yield { part: (method + 1) / known.length, finished: null };
  }
  return runs;
}

/** Milliseconds of a first answer above which it is not worked out again; most of them go into code that runs for the first time. */
const SHORT = 600;
const rehearsal = new Rehearsal();

/** A document that says the same in another text: nothing that is known of the first one is known of it. */
function inOtherWords(document: StudyDocument, turn: number): StudyDocument {
  const { problem } = document;
  return { ...document, problem: { ...problem, text: `${problem.text}\n# ${turn}` } };
}

/** Whether a study was not run, since it would take too long here. */
function isRefusedAsLong(message: Message): boolean {
  return message.kind === 'whole' && message.answer.kind === 'long';
}

/** Works an answer out again for documents that say the same, where it is one that is asked for with every digit. */
function rehearse(request: WorkerRequest): void {
  if (request.kind === 'whole') {
    const { document } = request.question;
    rehearsal.begin((turn) => runStudy(openedStudy(inOtherWords(document, turn))));
  }
  if (request.kind === 'curves') {
    const { document, runs } = request.question;
    rehearsal.begin((turn) => finish(curvesOf(openedStudy(inOtherWords(document, turn)), runs)));
  }
}

/** Questions whose answers have code of their own, loaded on first use. */
type Later = 'taken' | MarkingKind;
/** Questions whose answers need no code that is still to be loaded. */
type AtOnce = Exclude<Kind, Later>;

/** How each question is answered. */
const ANSWER: { readonly [K in AtOnce]: (question: Questions[K], id: number) => Answers[K] } = {
  method: ({ document, method }, id) => watched(id, methodSigns(openedStudy(document), method)),
  whole: ({ document, known, maxSeconds }, id) => {
    const study = openedStudy(document);
    const seconds = estimatedSeconds(study);
    if (seconds > maxSeconds) return { kind: 'long', seconds };
    const runs = watched(id, wholeSigns(study, known));
    return { kind: 'done', runs, result: conclude(study, runs) };
  },
  conclude: ({ document, runs }) => conclude(openedStudy(document), runs),
  rows: ({ document, window }) => rowsWindow(openedStudy(document), window, runKey(document, window.method)),
  side: ({ document, window }) => sideRows(openedStudy(document), document, window),
  step: ({ document, step }) => stepView(openedStudy(document), step),
  curves: ({ document, runs }, id) => watched(id, asSigns(curvesOf(openedStudy(document), runs))),
  profile: ({ document, profile }) => profileOf(openedStudy(document), document, profile),
  limits: ({ document }) => limitsOf(openedStudy(document)),
  readProblem: ({ text }) => parseProblem(text),
  readMethod: ({ text }) => parseMethod(text),
  inspection: ({ text }) => inspectMethod(methodOf(text)),
  slips: ({ text }) => findSlips(methodOf(text)),
  proved: ({ texts }) => provedTexts(texts),
  facts: ({ texts }) => methodFacts(texts),
  region: regionOf,
  spectrum: ({ document, method }) => spectrumOf(openedStudy(document), method),
  wished: ({ document, targetError: wished }) => stepsForError(openedStudy(document), wished),
  bench: ({ text }) => testBench(methodOf(text)),
  problem: ({ text, parameters }) => problemView(text, parameters),
};

function answered<K extends AtOnce>(id: number, kind: K, question: Questions[K]): Done<K> {
  return { id, kind, answer: ANSWER[kind](question, id) };
}

/** One question and its answer; the kinds of both go together. */
function answer(request: Exclude<WorkerRequest, { readonly kind: Later }>): Message {
  const { id } = request;
  switch (request.kind) {
    case 'method':
      return answered(id, request.kind, request.question);
    case 'whole':
      return answered(id, request.kind, request.question);
    case 'conclude':
      return answered(id, request.kind, request.question);
    case 'rows':
      return answered(id, request.kind, request.question);
    case 'side':
      return answered(id, request.kind, request.question);
    case 'step':
      return answered(id, request.kind, request.question);
    case 'curves':
      return answered(id, request.kind, request.question);
    case 'profile':
      return answered(id, request.kind, request.question);
    case 'limits':
      return answered(id, request.kind, request.question);
    case 'readProblem':
      return answered(id, request.kind, request.question);
    case 'readMethod':
      return answered(id, request.kind, request.question);
    case 'inspection':
      return answered(id, request.kind, request.question);
    case 'slips':
      return answered(id, request.kind, request.question);
    case 'proved':
      return answered(id, request.kind, request.question);
    case 'facts':
      return answered(id, request.kind, request.question);
    case 'region':
      return answered(id, request.kind, request.question);
    case 'spectrum':
      return answered(id, request.kind, request.question);
    case 'bench':
      return answered(id, request.kind, request.question);
    case 'wished':
      return answered(id, request.kind, request.question);
    case 'problem':
      return answered(id, request.kind, request.question);
  }
}

function failed(id: number, thrown: unknown): void {
  const why = thrown instanceof Error ? thrown.message : String(thrown);
  self.postMessage({ id, kind: 'failed', why } satisfies Message);
}

async function exported({ document, request }: Questions['taken']): Promise<Answers['taken']> {
  const { exportedFile } = await import('./exported-file.ts');
  return exportedFile(document, openedStudy(document), request);
}

async function marked<K extends MarkingKind>(
  id: number,
  kind: K,
  question: MarkingQuestions[K],
): Promise<{ readonly id: number; readonly kind: K; readonly answer: MarkingAnswers[K] }> {
  const { ANSWER_MARKING } = await import('./marking-answers.ts');
  const answer = await ANSWER_MARKING[kind](question, (work) => watched(id, asSigns(work)));
  return { id, kind, answer };
}

/** Answers a question whose code is loaded on first use. */
async function answerLater(request: WorkerRequest & { readonly kind: Later }): Promise<Message> {
  const { id } = request;
  switch (request.kind) {
    case 'taken':
      return { id, kind: request.kind, answer: await exported(request.question) };
    case 'submitted':
      return marked(id, request.kind, request.question);
    case 'submissions':
      return marked(id, request.kind, request.question);
    case 'marked':
      return marked(id, request.kind, request.question);
    case 'foundRun':
      return marked(id, request.kind, request.question);
    case 'feedback':
      return marked(id, request.kind, request.question);
  }
}

const LATER: ReadonlySet<Kind> = new Set<Later>([
  'taken',
  'submitted',
  'submissions',
  'marked',
  'foundRun',
  'feedback',
]);

function isLater(request: WorkerRequest): request is WorkerRequest & { readonly kind: Later } {
  return LATER.has(request.kind);
}

self.addEventListener('message', ({ data }: MessageEvent<WorkerRequest>) => {
  if (isLater(data)) {
    answerLater(data)
      .then((message) => self.postMessage(message))
      .catch((thrown: unknown) => failed(data.id, thrown));
    return;
  }
  rehearsal.rest();
  try {
    const from = performance.now();
    const message = answer(data);
    self.postMessage(message);
    if (performance.now() - from < SHORT && !isRefusedAsLong(message)) rehearse(data);
  } catch (thrown) {
    failed(data.id, thrown);
  }
});
