import type { StudyDocument } from '@schritt/core/document';
import { Computer, MAX_SECONDS, Superseded } from './computer.ts';
import type { Message, WorkerRequest } from './messages.ts';

/** A worker that a test answers for. */
class FakeWorker {
  static all: FakeWorker[] = [];
  readonly asked: WorkerRequest[] = [];
  ended = false;
  readonly #hear = new Map<string, ((event: object) => void)[]>();

  constructor() {
    FakeWorker.all.push(this);
  }

  addEventListener(kind: string, hear: (event: object) => void): void {
    this.#hear.set(kind, [...(this.#hear.get(kind) ?? []), hear]);
  }

  postMessage(request: WorkerRequest): void {
    this.asked.push(request);
  }

  terminate(): void {
    this.ended = true;
  }

  say(data: Message): void {
    for (const hear of this.#hear.get('message') ?? []) hear({ data });
  }

  break(message: string): void {
    for (const hear of this.#hear.get('error') ?? []) hear({ message });
  }
}

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: '' },
  methods: [],
  ladder: { counts: [1] },
};
const RUN = { title: 'Euler', rungs: [], refused: null };

beforeEach(() => {
  jest.useFakeTimers();
  FakeWorker.all = [];
  Object.assign(globalThis, { Worker: FakeWorker });
});
afterEach(() => {
  jest.useRealTimers();
});

function only(): FakeWorker {
  expect(FakeWorker.all).toHaveLength(1);
  return FakeWorker.all[0]!;
}

test('a computer that is closed starts no worker again', async () => {
  const computer = new Computer();
  computer.close();
  await expect(computer.ask('limits', { document: STUDY })).rejects.toBeInstanceOf(Superseded);
});

test('a question gets its own answer, and signs of life on the way', async () => {
  const computer = new Computer();
  const told: [number, number][] = [];
  const answer = computer.ask('method', { document: STUDY, method: 0 }, (part, finished) =>
    told.push([part, finished.length]),
  );
  const worker = only();
  const { id } = worker.asked[0]!;
  worker.say({ id, kind: 'progress', part: 0.25, finished: [] });
  worker.say({ id: id + 7, kind: 'progress', part: 0.9, finished: [] });
  worker.say({ id, kind: 'method', answer: RUN });
  await expect(answer).resolves.toBe(RUN);
  expect(told).toEqual([[0.25, 0]]);
});

test('a failure comes with its reason, an answer of another kind is a fault', async () => {
  const computer = new Computer();
  const failed = computer.ask('method', { document: STUDY, method: 0 });
  only().say({ id: 1, kind: 'failed', why: 'a text cannot be read' });
  await expect(failed).rejects.toThrow('a text cannot be read');
  const other = computer.ask('conclude', { document: STUDY, runs: [] });
  only().say({ id: 2, kind: 'method', answer: RUN });
  await expect(other).rejects.toThrow('an answer to another question');
});

test('a newer question waits a moment for the worker, and has it if it is done in time', async () => {
  const computer = new Computer();
  const older = computer.ask('method', { document: STUDY, method: 0 });
  const newer = computer.ask('method', { document: STUDY, method: 1 });
  await expect(older).rejects.toBeInstanceOf(Superseded);
  jest.advanceTimersByTime(30);
  const worker = only();
  expect(worker.asked).toHaveLength(1);
  worker.say({ id: 1, kind: 'method', answer: RUN });
  expect(worker.asked).toHaveLength(2);
  worker.say({ id: 2, kind: 'method', answer: RUN });
  await expect(newer).resolves.toBe(RUN);
  jest.advanceTimersByTime(1_000);
  expect(worker.ended).toBe(false);
});

test('a worker that is not done in time is ended, and another one is asked', async () => {
  const computer = new Computer();
  const older = computer.ask('method', { document: STUDY, method: 0 });
  const newer = computer.ask('method', { document: STUDY, method: 1 });
  await expect(older).rejects.toBeInstanceOf(Superseded);
  jest.advanceTimersByTime(61);
  expect(FakeWorker.all.map(({ ended }) => ended)).toEqual([true, false]);
  FakeWorker.all[1]!.say({ id: 2, kind: 'method', answer: RUN });
  await expect(newer).resolves.toBe(RUN);
});

test('of several questions the last alone is asked', async () => {
  const computer = new Computer();
  const void_ = [0, 1, 2].map((method) => computer.ask('method', { document: STUDY, method }));
  const last = computer.ask('method', { document: STUDY, method: 3 });
  for (const one of void_) await expect(one).rejects.toBeInstanceOf(Superseded);
  only().say({ id: 1, kind: 'method', answer: RUN });
  expect(only().asked.map(({ id }) => id)).toEqual([1, 4]);
  only().say({ id: 4, kind: 'method', answer: RUN });
  await expect(last).resolves.toBe(RUN);
});

test('cancelling ends what runs, and nothing that was held is asked later', async () => {
  const computer = new Computer();
  const first = computer.ask('method', { document: STUDY, method: 0 });
  const held = computer.ask('method', { document: STUDY, method: 1 });
  computer.cancel();
  await expect(first).rejects.toBeInstanceOf(Superseded);
  await expect(held).rejects.toBeInstanceOf(Superseded);
  expect(only().ended).toBe(true);
  jest.advanceTimersByTime(1_000);
  expect(FakeWorker.all).toHaveLength(1);
});

test('a worker that breaks fails its question, and the next one has a new worker', async () => {
  const computer = new Computer();
  const first = computer.ask('method', { document: STUDY, method: 0 });
  only().break('out of memory');
  await expect(first).rejects.toThrow('out of memory');
  void computer.ask('method', { document: STUDY, method: 0 }).catch(() => undefined);
  expect(FakeWorker.all).toHaveLength(2);
  computer.close();
});

test('a question that takes longer than its time is given up, with the time in the reason, and the next one is answered', async () => {
  const computer = new Computer();
  const endless = computer.ask('inspection', { text: '' });
  const failed = expect(endless).rejects.toThrow(
    `it took longer than ${MAX_SECONDS} seconds and was stopped`,
  );
  await jest.advanceTimersByTimeAsync(1000 * MAX_SECONDS - 1);
  expect(only().ended).toBe(false);
  await jest.advanceTimersByTimeAsync(1);
  await failed;
  expect(only().ended).toBe(true);
  const next = computer.ask('method', { document: STUDY, method: 0 });
  const [, second] = FakeWorker.all;
  second!.say({ id: 2, kind: 'method', answer: RUN });
  expect(await next).toEqual(RUN);
  // an answer that came in time stops the clock
  await jest.advanceTimersByTimeAsync(2000 * MAX_SECONDS);
  expect(second!.ended).toBe(false);
});
