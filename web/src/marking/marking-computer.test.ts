import type { StudyDocument } from '@schritt/core/document';
import { AS_FOUND, type StudentMarking } from '@schritt/core/marking';
import { Superseded } from '../worker/computer.ts';
import { ANSWER_MARKING, type MarkingKeys, type Submissions } from '../worker/marking-answers.ts';
import type { Message, WorkerRequest } from '../worker/messages.ts';
import { MarkingComputer } from './marking-computer.ts';

/** A worker that marks as the real one does, a moment later. */
class FakeWorker {
  static asked = 0;
  /** How many mark at this moment, and the most that did. */
  static busy = 0;
  static most = 0;
  /** Milliseconds that a student takes. */
  static takes = 1;
  readonly #hear: ((event: { data: Message }) => void)[] = [];
  #isAlive = true;

  addEventListener(kind: string, hear: (event: { data: Message }) => void): void {
    if (kind === 'message') this.#hear.push(hear);
  }

  postMessage(request: WorkerRequest): void {
    if (request.kind !== 'marked') throw new Error(request.kind);
    FakeWorker.asked += 1;
    FakeWorker.busy += 1;
    FakeWorker.most = Math.max(FakeWorker.most, FakeWorker.busy);
    const { id, kind, question } = request;
    setTimeout(() => {
      FakeWorker.busy -= 1;
      const answer = ANSWER_MARKING.marked(question, pull);
      if (answer instanceof Promise || !this.#isAlive) return;
      for (const hear of this.#hear) hear({ data: { id, kind, answer } });
    }, FakeWorker.takes);
  }

  terminate(): void {
    this.#isAlive = false;
  }
}
Object.assign(globalThis, { Worker: FakeWorker });
jest.mock('../worker/worker-pool.ts', () => ({ acquireWorker: () => new FakeWorker() }));

function pull(): never {
  throw new Error('nothing is searched');
}

const DOCUMENT: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Frost',
  problem: { title: 'Frost', text: "y' = -y\ny(0) = 1\n0 <= t <= 1" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [4] },
};
const KEYS: MarkingKeys = {
  document: DOCUMENT,
  problems: [DOCUMENT.problem.text],
  method: 0,
  gridRequest: { steps: 4 },
};

/** Euler's method by hand: each value is three quarters of the one before. */
const RIGHT = ['1', '0.75', '0.5625', '0.4219', '0.3164'];

async function submissionsOf(students: Readonly<Record<string, readonly string[]>>): Promise<Submissions> {
  const columns = Object.values(students);
  const text = [
    ['n', ...Object.keys(students)].join(';'),
    ...RIGHT.map((_, n) => [n, ...columns.map((own) => own[n])].join(';')),
  ].join('\n');
  return ANSWER_MARKING.submissions(
    {
      ...KEYS,
      variants: null,
      files: [{ name: 'class.csv', text }],
      layout: 'one per column',
      roles: {},
      reading: AS_FOUND,
    },
    pull,
  );
}

const WRONG = RIGHT.with(3, '0.5');

beforeEach(() => {
  FakeWorker.asked = 0;
  FakeWorker.most = 0;
});

test('a class is marked on several workers, in its order; what did not change is not marked again', async () => {
  const { submissions } = await submissionsOf({ Anna: RIGHT, Ben: WRONG, Cem: RIGHT });
  const computer = new MarkingComputer(3);
  const parts: number[] = [];
  const marked = await computer.run({ keys: KEYS, submissions, sheets: {} }, (part) => parts.push(part));
  expect(marked.map(({ student, marking }) => [student, marking?.firstWrong])).toEqual([
    ['Anna', null],
    ['Ben', 3],
    ['Cem', null],
  ]);
  expect(parts[0]).toBe(1 / 3);
  const { submissions: other } = await submissionsOf({ Anna: RIGHT, Ben: RIGHT, Cem: RIGHT });
  const again = await computer.run({ keys: KEYS, submissions: other, sheets: {} }, () => undefined);
  expect(again.map(({ marking }) => marking?.firstWrong)).toEqual([null, null, null]);
  // of the three columns one was changed
  expect(FakeWorker.asked).toBe(4);
  computer.close();
});

test.each([
  [1, 1],
  [2, 1],
  [4, 3],
  [32, 8],
])('of %i cores %i mark: one is left to the page', async (cores, workers) => {
  const students = Array.from({ length: 12 }, (_, i) => [`Student ${i}`, RIGHT] as const);
  const { submissions } = await submissionsOf(Object.fromEntries(students));
  const computer = new MarkingComputer(cores);
  const marked = await computer.run({ keys: KEYS, submissions, sheets: {} }, () => undefined);
  expect([marked.length, FakeWorker.most]).toEqual([12, workers]);
  computer.close();
});

test('the first student is reported at once, others four times a second, and none after the end', async () => {
  const students = Array.from({ length: 12 }, (_, i) => [`Student ${i}`, RIGHT] as const);
  const { submissions } = await submissionsOf(Object.fromEntries(students));
  jest.useFakeTimers();
  FakeWorker.takes = 90;
  try {
    const computer = new MarkingComputer(2);
    const reports: (readonly [number, number, number])[] = [];
    const from = Date.now();
    const run = computer.run({ keys: KEYS, submissions, sheets: {} }, (part, { length }) =>
      reports.push([Date.now() - from, part, length]),
    );
    await jest.advanceTimersByTimeAsync(1_080);
    expect((await run).length).toBe(12);
    await jest.advanceTimersByTimeAsync(1_000);
    expect(reports).toEqual([
      [90, 1 / 12, 1],
      [340, 3 / 12, 3],
      [590, 6 / 12, 6],
      [840, 9 / 12, 9],
    ]);
    computer.close();
  } finally {
    FakeWorker.takes = 1;
    jest.useRealTimers();
  }
});

test('a newer class makes the older one void', async () => {
  const { submissions } = await submissionsOf({ Anna: RIGHT, Ben: WRONG });
  const computer = new MarkingComputer(1);
  const first = computer.run({ keys: KEYS, submissions, sheets: {} }, () => undefined);
  const failed = expect(first).rejects.toBeInstanceOf(Superseded);
  const second: readonly StudentMarking[] = await computer.run(
    { keys: KEYS, submissions: submissions.slice(1), sheets: {} },
    () => undefined,
  );
  await failed;
  expect(second.map(({ student }) => student)).toEqual(['Ben']);
  computer.close();
});
