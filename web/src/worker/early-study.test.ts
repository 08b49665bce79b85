import type { StudyDocument } from '@schritt/core/document';
import { computeEarly, earlyResult, isSameStudy, takeEarly } from './early-study.ts';
import type { Message, WorkerRequest } from './messages.ts';
import { StudyComputer } from './study-computer.ts';

const asked: WorkerRequest[] = [];
let ended = 0;

/** A worker that says at once that a study is done, and how many methods it had. */
class FakeWorker {
  readonly #hear: ((event: { data: Message }) => void)[] = [];

  addEventListener(kind: string, hear: (event: { data: Message }) => void): void {
    if (kind === 'message') this.#hear.push(hear);
  }

  postMessage(request: WorkerRequest): void {
    asked.push(request);
    if (request.kind !== 'whole') throw new Error('only whole studies are asked here');
    const runs = request.question.known.map((_, i) => ({ title: `run ${i}`, rungs: [], refused: null }));
    const result = { rungs: [], methods: [], truth: null, findings: [], comparison: null, problems: [] };
    const data: Message = { id: request.id, kind: 'whole', answer: { kind: 'done', runs, result } };
    setTimeout(() => this.#hear.forEach((hear) => hear({ data })), 1);
  }

  terminate(): void {
    ended += 1;
  }
}

const STORED: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  note: 'for Monday',
  problem: { text: "level' = -level\nlevel(0) = 1\n0 <= t <= 1", title: 'Sluice' },
  methods: [{ text: 'y[n+1] = y + h*f(t, y)', title: 'Euler' }],
  ladder: { counts: [4, 8] },
};

/** The same as the page makes it of its parts. */
const SHOWN: StudyDocument = {
  kind: 'study',
  schritt: 1,
  title: 'Sluice',
  ladder: { counts: [4, 8] },
  problem: { title: 'Sluice', text: STORED.problem.text },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
};

beforeEach(() => {
  asked.length = 0;
  ended = 0;
  Object.assign(globalThis, { Worker: FakeWorker });
});

afterEach(() => takeEarly()?.computer.close());

test('a study is the same in whatever order its fields are, and whatever is remarked on it', () => {
  expect(isSameStudy(STORED, SHOWN)).toBe(true);
  expect(isSameStudy(STORED, { ...SHOWN, ladder: { counts: [8, 4] } })).toBe(false);
  expect(isSameStudy(STORED, { ...SHOWN, precision: 'single' })).toBe(false);
  expect(isSameStudy({ ...STORED, error: { at: 'max' } }, SHOWN)).toBe(false);
});

test('the answer to an early question is that of the page, and nothing is asked again', async () => {
  void computeEarly(STORED);
  const computer = new StudyComputer(2);
  const result = await computer.run(SHOWN, () => undefined);
  expect(result.findings).toEqual([]);
  expect(asked).toHaveLength(1);
  expect(ended).toBe(0);
  // a change is asked for as usual
  await computer.run({ ...SHOWN, ladder: { counts: [16] } }, () => undefined);
  expect(asked).toHaveLength(2);
  computer.close();
});

test('what is known early is known of that study alone, and until its page has taken it', async () => {
  void computeEarly(STORED);
  expect(earlyResult(SHOWN)).toBeNull();
  await new Promise((done) => setTimeout(done, 20));
  const known = earlyResult(SHOWN);
  expect(known?.findings).toEqual([]);
  expect(earlyResult({ ...SHOWN, ladder: { counts: [16] } })).toBeNull();
  const computer = new StudyComputer(2);
  // the same object: a page that shows it has nothing to render again
  expect(await computer.run(SHOWN, () => undefined)).toBe(known);
  expect(earlyResult(SHOWN)).toBeNull();
  computer.close();
});

test('an early question about another study is dropped', async () => {
  void computeEarly(STORED);
  const computer = new StudyComputer(2);
  await computer.run({ ...SHOWN, ladder: { counts: [16] } }, () => undefined);
  expect(asked.map((request) => request.kind)).toEqual(['whole', 'whole']);
  expect(ended).toBe(1);
  computer.close();
});
