import type { StudyDocument } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import { cancelJob, followJob, type FollowedJob } from '../api/jobs.ts';
import type { Message, WorkerRequest } from './messages.ts';
import { StudyComputer } from './study-computer.ts';

jest.mock('../api/jobs.ts', () => ({ followJob: jest.fn(), cancelJob: jest.fn() }));

const follow = jest.mocked(followJob);
const cancel = jest.mocked(cancelJob);

/** How long the worker says a study will take. */
const estimated = { seconds: 100 };

/** A worker that finds every study too long, so that they run on the server, and is silent otherwise. */
class EstimatingWorker {
  #hear: ((event: { data: Message }) => void) | null = null;

  addEventListener(kind: string, hear: (event: { data: Message }) => void): void {
    if (kind === 'message') this.#hear = hear;
  }

  postMessage({ id, kind }: WorkerRequest): void {
    if (kind === 'whole')
      queueMicrotask(() =>
        this.#hear?.({ data: { id, kind, answer: { kind: 'long', seconds: estimated.seconds } } }),
      );
  }

  terminate(): void {
    this.#hear = null;
  }
}

function long(rhs: string): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: `level' = ${rhs}\nlevel(0) = 1\n0 <= t <= 1` },
    methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
    ladder: { counts: Array.from({ length: 40 }, () => 90_000_000) },
  };
}

interface Asked {
  readonly id: string;
  readonly tell: () => void;
  readonly left: () => boolean;
}

const asked: Asked[] = [];

/** A job of the given id, of which the server tells when the test lets it. */
function server(...ids: readonly string[]): void {
  for (const id of ids)
    follow.mockImplementationOnce(
      () =>
        new Promise<FollowedJob>((done) => {
          let isLeft = false;
          const runs = new Promise<readonly MethodRun[]>(() => undefined);
          const job = { id, runs, leave: () => (isLeft = true) };
          asked.push({ id, tell: () => done(job), left: () => isLeft });
        }),
    );
}

async function turn(): Promise<void> {
  await new Promise((done) => setTimeout(done, 0));
}

beforeEach(() => {
  asked.length = 0;
  follow.mockReset();
  estimated.seconds = 100;
  cancel.mockReset().mockResolvedValue(undefined);
  Object.assign(globalThis, { Worker: EstimatingWorker });
});

const quiet = (): void => undefined;
/** Runs a study until it was sent to the server. */
async function run(computer: StudyComputer, document: StudyDocument): Promise<void> {
  void computer.run(document, quiet).catch(quiet);
  await turn();
}
const ended = (): readonly string[] => cancel.mock.calls.map(([id]) => id);

test('a page that goes away ends its study on the server', async () => {
  server('a');
  const computer = new StudyComputer(1);
  await run(computer, long('-level'));
  asked[0]?.tell();
  await turn();
  computer.close();
  expect(ended()).toEqual(['a']);
});

test('unless it was to go on', async () => {
  server('a');
  const computer = new StudyComputer(1);
  await run(computer, long('-level'));
  asked[0]?.tell();
  await turn();
  computer.continueInBackground();
  computer.close();
  expect(ended()).toEqual([]);
  expect(asked[0]?.left()).toBe(true);
});

test('a changed study ends the older one, also where the server had not reported it yet', async () => {
  server('a', 'b', 'c');
  const computer = new StudyComputer(1);
  await run(computer, long('-level'));
  await run(computer, long('-2*level'));
  await run(computer, long('-3*level'));
  for (const { tell } of asked) tell();
  await turn();
  expect([...ended()].sort()).toEqual(['a', 'b']);
  computer.cancel();
  expect(ended()).toContain('c');
});

test('a change that touches no run keeps the job it finds again', async () => {
  server('a', 'a');
  const computer = new StudyComputer(1);
  await run(computer, long('-level'));
  await run(computer, { ...long('-level'), title: 'Another' });
  for (const { tell } of asked) tell();
  await turn();
  expect(ended()).toEqual([]);
  computer.close();
  expect(ended()).toEqual(['a']);
});

test('a study of more than four seconds goes to the server, a shorter one does not', async () => {
  server('one');
  estimated.seconds = 3.9;
  const short = new StudyComputer(1);
  await run(short, long('-level'));
  expect(follow).not.toHaveBeenCalled();
  short.cancel();
  estimated.seconds = 4.1;
  await run(new StudyComputer(1), long('-level'));
  expect(follow).toHaveBeenCalledTimes(1);
});
