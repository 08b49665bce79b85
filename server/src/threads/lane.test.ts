import type { Piscina } from 'piscina';
import { Lane, LaneTimeout } from './lane.ts';

/** A pool whose tasks take as many milliseconds as they say, or never end. */
function lane(): { readonly lane: Lane<number, number>; readonly begun: readonly number[] } {
  const begun: number[] = [];
  const pool: Pick<Piscina<number, number>, 'run' | 'destroy'> = {
    run: (task, options) =>
      new Promise((done, fail) => {
        begun.push(task);
        const timer = setTimeout(() => done(task), task);
        const signal: unknown = options?.signal;
        if (signal instanceof AbortSignal)
          signal.addEventListener('abort', () => {
            clearTimeout(timer);
            fail(new Error('aborted'));
          });
      }),
    destroy: () => Promise.resolve(),
  };
  return { lane: new Lane<number, number>(() => Object.assign(Object.create(null), pool)), begun };
}

test('tasks run one after another, and the time of each begins when its turn comes', async () => {
  const { lane: own, begun } = lane();
  const all = [own.run(60, 100), own.run(61, 100), own.run(62, 100)];
  expect(own.waiting).toBe(3);
  await new Promise((done) => setTimeout(done, 20));
  expect(begun).toEqual([60]);
  expect(await Promise.all(all)).toEqual([60, 61, 62]);
  expect(own.waiting).toBe(0);
});

test('a task that takes too long is stopped, and the next one runs', async () => {
  const { lane: own } = lane();
  const long = own.run(1e6, 30);
  const next = own.run(1, 30);
  await expect(long).rejects.toBeInstanceOf(LaneTimeout);
  expect(await next).toBe(1);
  await own.close();
});
