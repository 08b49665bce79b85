import type { StudyDocument } from '@schritt/core/document';
import { server } from './client.ts';
import { cancelJob, followJob } from './jobs.ts';

jest.mock('openapi-fetch', () => ({
  __esModule: true,
  default: () => ({ GET: jest.fn(), POST: jest.fn(), DELETE: jest.fn() }),
}));

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: '' },
  methods: [{ title: 'Euler', text: '' }],
  ladder: { counts: [4] },
};
const RUNS = [{ title: 'Euler', rungs: [], refused: null }];

class FakeSource {
  static readonly CLOSED = 2;
  static last: FakeSource | null = null;
  readonly hear = new Map<string, (event: { data: string }) => void>();
  readyState = 1;
  constructor(readonly address: string) {
    FakeSource.last = this;
  }
  addEventListener(kind: string, hear: (event: { data: string }) => void): void {
    this.hear.set(kind, hear);
  }
  close(): void {
    this.readyState = FakeSource.CLOSED;
  }
  say(state: string, part: number, done = 0, why: string | null = null): void {
    this.hear.get('message')?.({
      data: JSON.stringify({ id: 'j', state, part, done, of: 4, workers: 2, isReached: true, why }),
    });
  }
}

function answers(method: 'GET' | 'POST' | 'DELETE', data: unknown): void {
  jest
    .mocked<(...inputs: never[]) => Promise<unknown>>(server[method])
    .mockImplementation(() => Promise.resolve({ data, response: { ok: true, status: 200 } }));
}

beforeEach(() => {
  Object.assign(globalThis, { EventSource: FakeSource });
  FakeSource.last = null;
  answers('POST', {
    id: 'j',
    state: 'waiting',
    part: 0,
    done: 0,
    of: 0,
    workers: 2,
    isReached: true,
    why: null,
  });
  answers('GET', RUNS);
});

test('a job is followed to its end: parts, rungs that are finished, runs', async () => {
  const parts: number[] = [];
  const looks: unknown[] = [];
  const job = await followJob(
    STUDY,
    ({ part }) => parts.push(part),
    (runs) => looks.push(runs),
  );
  const source = FakeSource.last!;
  expect(source.address).toBe('/api/jobs/j/events');
  source.say('running', 0.2);
  source.say('running', 0.4, 1);
  source.say('running', 0.5, 1);
  source.say('done', 1, 2);
  await expect(job.runs).resolves.toEqual(RUNS);
  expect(parts).toEqual([0.2, 0.4, 0.5, 1]);
  // one look for the one rung that was finished on the way
  expect(looks).toHaveLength(1);
  expect(source.readyState).toBe(FakeSource.CLOSED);
});

test('a job that has run before is not listened to', async () => {
  answers('POST', { id: 'j', state: 'done', part: 1, rungs: 0, why: null });
  const job = await followJob(
    STUDY,
    () => undefined,
    () => undefined,
  );
  await expect(job.runs).resolves.toEqual(RUNS);
  expect(FakeSource.last).toBeNull();
});

test.each([
  ['cancelled', 'it was cancelled', 'cancelled'],
  [
    'too long',
    'it took more than 900 seconds',
    'it took more than 900 seconds on the server; use fewer or larger step sizes',
  ],
  ['failed', 'out of memory', 'out of memory'],
  ['failed', null, 'the server gave no reason'],
])('a job that is %s (%s) fails in words', async (state, why, message) => {
  const job = await followJob(
    STUDY,
    () => undefined,
    () => undefined,
  );
  FakeSource.last!.say(state, 0.5, 0, why);
  await expect(job.runs).rejects.toThrow(message);
});

test('a stream that broke for good is given up, one that is opened again is not', async () => {
  const job = await followJob(
    STUDY,
    () => undefined,
    () => undefined,
  );
  const source = FakeSource.last!;
  source.hear.get('error')?.({ data: '' });
  source.readyState = FakeSource.CLOSED;
  source.hear.get('error')?.({ data: '' });
  await expect(job.runs).rejects.toThrow('the server does not respond');
});

test('runs that are no runs of this study are not taken', async () => {
  answers('GET', [{ nonsense: 1 }]);
  const job = await followJob(
    STUDY,
    () => undefined,
    () => undefined,
  );
  FakeSource.last!.say('done', 1);
  await expect(job.runs).rejects.toThrow('the response of the server cannot be read');
});

test('a job is ended on the server', async () => {
  answers('DELETE', undefined);
  await cancelJob('j');
  expect(server.DELETE).toHaveBeenCalledWith('/api/jobs/{id}', {
    params: { path: { id: 'j' } },
    keepalive: true,
  });
});
