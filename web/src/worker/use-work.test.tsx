/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { Superseded } from './computer.ts';
import { type Tell, useWork } from './use-work.ts';

interface AcquiredWorker {
  readonly cancel: jest.Mock;
  readonly close: jest.Mock;
}

interface Job {
  readonly tell: Tell<string>;
  readonly done: (value: string) => void;
  readonly fail: (why: Error) => void;
}

function acquired(): AcquiredWorker {
  return { cancel: jest.fn(), close: jest.fn() };
}

/** A piece of work that a test ends when it likes. */
function work(): {
  readonly job: () => Job;
  readonly run: (worker: AcquiredWorker, tell: Tell<string>) => Promise<string>;
} {
  let job: Job | null = null;
  return {
    job: () => job!,
    run: (_, tell) => new Promise((done, fail) => (job = { tell, done, fail })),
  };
}

const ELSEWHERE = { part: 0.5, done: 12, of: 48, workers: 3, isReached: true };

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

test('the last value stays until the next one is there', async () => {
  const [first, second] = [work(), work()];
  const worker = acquired();
  const hook = renderHook(({ run }) => useWork(() => worker, run), { initialProps: { run: first.run } });
  expect(hook.result.current).toMatchObject({ value: null, part: 0 });
  await act(async () => first.job().done('one'));
  expect(hook.result.current).toMatchObject({ value: 'one', part: null, why: null });
  const one = hook.result.current;
  hook.rerender({ run: second.run });
  // what shows it has nothing to render until there is something new
  expect(hook.result.current).toBe(one);
  act(() => second.job().tell(0.5, 'half of two', ELSEWHERE));
  expect(hook.result.current).toMatchObject({ value: 'half of two', part: 0.5, elsewhere: ELSEWHERE });
  await act(async () => second.job().done('two'));
  expect(hook.result.current).toMatchObject({ value: 'two', part: null, elsewhere: null });
});

test('what is known at first is there at once; an equal result renders nothing again', async () => {
  const first = work();
  const worker = acquired();
  const values: (string | null)[] = [];
  renderHook(() => {
    const { value, part } = useWork(() => worker, first.run, 'known');
    values.push(part === null ? value : null);
  });
  expect(values).toEqual(['known']);
  await act(async () => first.job().done('known'));
  expect(values).toEqual(['known']);
});

test('work that says nothing is shown as under way after a moment, not at once', () => {
  const [first, second] = [work(), work()];
  const worker = acquired();
  const hook = renderHook(({ run }) => useWork(() => worker, run), { initialProps: { run: first.run } });
  act(() => first.job().tell(1));
  hook.rerender({ run: second.run });
  act(() => jest.advanceTimersByTime(149));
  expect(hook.result.current.part).toBe(1);
  act(() => jest.advanceTimersByTime(2));
  expect(hook.result.current.part).toBe(1);
});

test('a failure is reported beside the last value; being superseded is none', async () => {
  const [first, second, third] = [work(), work(), work()];
  const worker = acquired();
  const hook = renderHook(({ run }) => useWork(() => worker, run), { initialProps: { run: first.run } });
  await act(async () => first.job().done('one'));
  hook.rerender({ run: second.run });
  await act(async () => second.job().fail(new Error('out of memory')));
  expect(hook.result.current).toMatchObject({ value: 'one', why: 'out of memory', part: null });
  hook.rerender({ run: third.run });
  await act(async () => third.job().fail(new Superseded()));
  expect(hook.result.current.why).toBe('out of memory');
});

test('cancelling ends the work and says so; the worker is closed with the page', async () => {
  const first = work();
  const worker = acquired();
  const hook = renderHook(() => useWork(() => worker, first.run));
  act(() => hook.result.current.cancel());
  expect(worker.cancel).toHaveBeenCalledTimes(1);
  expect(hook.result.current).toMatchObject({ part: null, why: 'cancelled' });
  hook.unmount();
  expect(worker.close).toHaveBeenCalledTimes(1);
});

test('no worker is acquired where there is nothing to do', () => {
  const acquire = jest.fn(acquired);
  renderHook(() => useWork(acquire, null));
  expect(acquire).not.toHaveBeenCalled();
});
