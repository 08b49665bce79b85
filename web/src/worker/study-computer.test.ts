import { openStudy, type StudyDocument } from '@schritt/core/document';
import { estimatedSeconds } from '@schritt/core/study';
import { Superseded } from './computer.ts';
import type { Message, WorkerRequest } from './messages.ts';
import { StudyComputer } from './study-computer.ts';

/** A worker that answers what the test says, or keeps silent. */
class FakeWorker {
  static asked: WorkerRequest[] = [];
  static ended = 0;
  /** Answers a request after some milliseconds; null for never. */
  static delay: (request: WorkerRequest) => number | null = () => 1;

  readonly #hear: ((event: { data: Message }) => void)[] = [];
  #alive = true;

  addEventListener(kind: string, hear: (event: { data: Message }) => void): void {
    if (kind === 'message') this.#hear.push(hear);
  }

  postMessage(request: WorkerRequest): void {
    FakeWorker.asked.push(request);
    const delay = FakeWorker.delay(request);
    if (delay === null) return;
    setTimeout(() => {
      if (this.#alive) for (const hear of this.#hear) hear({ data: answerTo(request) });
    }, delay);
  }

  terminate(): void {
    this.#alive = false;
    FakeWorker.ended += 1;
  }
}

const RESULT = { rungs: [], methods: [], truth: null, findings: [], comparison: null, problems: [] };

function answerTo(request: WorkerRequest): Message {
  const { id } = request;
  if (request.kind === 'whole') {
    const { known, document, maxSeconds } = request.question;
    const opened = openStudy(document);
    const seconds = opened.ok ? estimatedSeconds(opened.study) : 0;
    if (seconds > maxSeconds) return { id, kind: 'whole', answer: { kind: 'long', seconds } };
    const runs = known.map(
      (run, i) => run ?? { title: document.methods[i]?.title ?? '', rungs: [], refused: null },
    );
    return { id, kind: 'whole', answer: { kind: 'done', runs, result: RESULT } };
  }
  if (request.kind !== 'method') return { id, kind: 'conclude', answer: RESULT };
  const title = `run of ${request.question.method}`;
  return { id, kind: 'method', answer: { title, rungs: [], refused: null } };
}

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -level\nlevel(0) = 1\n0 <= t <= 1" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Two steps', text: 'start with Euler\ny[n+1] = y[n-1] + 2*h*f[n]' },
    { title: 'Twice', text: 'y[n+1] = y + h/2*(f(t, y) + f(t, y))' },
  ],
  // long enough for several workers
  ladder: { counts: [10, 6_000_000] },
};

const SHORT: StudyDocument = { ...STUDY, ladder: { counts: [10, 20] } };

function withMethod(place: number, change: Partial<StudyDocument['methods'][number]>): StudyDocument {
  const methods = STUDY.methods.map((method, i) => (i === place ? { ...method, ...change } : method));
  return { ...STUDY, methods };
}

/** The methods that were run for a study, and how often runs were judged. */
async function runFor(
  computer: StudyComputer,
  document: StudyDocument,
): Promise<{ readonly methods: readonly number[]; readonly judged: number }> {
  FakeWorker.asked = [];
  await computer.run(document, () => undefined);
  return {
    methods: FakeWorker.asked.flatMap((r) => (r.kind === 'method' ? [r.question.method] : [])).sort(),
    judged: FakeWorker.asked.filter(({ kind }) => kind === 'conclude').length,
  };
}

beforeEach(() => {
  Object.assign(globalThis, { Worker: FakeWorker });
  FakeWorker.asked = [];
  FakeWorker.ended = 0;
  FakeWorker.delay = () => 1;
});

test('a change runs again only what depends on it', async () => {
  const computer = new StudyComputer(2);
  expect(await runFor(computer, STUDY)).toEqual({ methods: [0, 1, 2], judged: 1 });
  // a strike, a title and a target error change no run
  expect(await runFor(computer, { ...withMethod(0, { struck: [1] }), title: 'Other', wished: 0.1 })).toEqual({
    methods: [],
    judged: 1,
  });
  expect((await runFor(computer, withMethod(2, { text: 'y[n+1] = y + h*f(t + h, y)' }))).methods).toEqual([
    2,
  ]);
  // the two-step formula starts with Euler
  expect((await runFor(computer, withMethod(0, { text: 'y[n+1] = y + 1*h*f(t, y)' }))).methods).toEqual([
    0, 1,
  ]);
  // so does one that names no method itself, where the study says so
  const bare = { ...withMethod(1, { text: 'y[n+1] = y[n-1] + 2*h*f[n]' }), start: 'Euler' };
  await runFor(computer, bare);
  const [, ...others] = bare.methods;
  const changed = { ...bare, methods: [{ title: 'Euler', text: 'y[n+1] = y + 3*h*f(t, y)' }, ...others] };
  expect((await runFor(computer, changed)).methods).toContain(1);
  expect((await runFor(computer, { ...STUDY, ladder: { counts: [6_000_000] } })).methods).toEqual([0, 1, 2]);
  computer.close();
});

test('a newer study makes the older one void; a busy worker is ended, one about to be done is waited for', async () => {
  const computer = new StudyComputer(1);
  FakeWorker.delay = (request) => (request.kind === 'method' && request.id === 1 ? null : 1);
  const older = computer.run(STUDY, () => undefined);
  while (!FakeWorker.asked.some(({ kind }) => kind === 'method'))
    await new Promise((done) => setTimeout(done, 1));
  const newer = computer.run(withMethod(0, { text: 'y[n+1] = y + 2*h*f(t, y)' }), () => undefined);
  await expect(older).rejects.toBeInstanceOf(Superseded);
  await expect(newer).resolves.toBe(RESULT);
  expect(FakeWorker.ended).toBe(1);
  computer.close();
});

test('cancelling fails the study under way and leaves nothing running', async () => {
  const computer = new StudyComputer(2);
  FakeWorker.delay = () => null;
  const running = computer.run(STUDY, () => undefined);
  computer.cancel();
  await expect(running).rejects.toBeInstanceOf(Superseded);
  expect(FakeWorker.ended).toBe(1);
});

test('a short study is one question, with the runs that are known already', async () => {
  const computer = new StudyComputer(4);
  const asked = async (document: StudyDocument): Promise<readonly string[]> => {
    FakeWorker.asked = [];
    await expect(computer.run(document, () => undefined)).resolves.toBe(RESULT);
    return FakeWorker.asked.map((request) =>
      request.kind === 'whole'
        ? request.question.known.map((run) => run?.title ?? 'to run').join(', ')
        : request.kind,
    );
  };
  const [first, second] = SHORT.methods;
  expect(await asked(SHORT)).toEqual(['to run, to run, to run']);
  expect(await asked({ ...SHORT, methods: [first!, second!] })).toEqual(['conclude']);
  const changed = [first!, second!, { title: 'Twice', text: 'y[n+1] = y + h*f(t + h, y)' }];
  expect(await asked({ ...SHORT, methods: changed })).toEqual(['Euler, Two steps, to run']);
  computer.close();
});
