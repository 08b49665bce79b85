import type { Plan, PlannedTask } from '../tasks/task.ts';
import { JobProgress } from './job-progress.ts';

const task = (seconds: number, runs: number): PlannedTask => ({
  task: { kind: 'runs', method: 0, rungs: [] },
  seconds,
  runs,
});
const PLAN: Plan = [
  { tasks: [task(1, 3), task(3, 1)], last: task(0, 0) },
  { tasks: [task(4, 2)], last: task(0, 0) },
];

test('the part is that of the time, and runs are counted when they are done', () => {
  const progress = new JobProgress(PLAN);
  expect(progress.runs).toEqual({ done: 0, of: 6 });
  progress.hear({ kind: 'begun', key: '0.1' }, 0);
  progress.hear({ kind: 'part', key: '0.1', part: 0.5 }, 100);
  expect(progress.part).toBeCloseTo(1.5 / 8, 12);
  progress.hear({ kind: 'done', key: '0.1', text: 'abc' }, 2000);
  progress.hear({ kind: 'done', key: '0.0', text: 'de' }, 2000);
  expect(progress.part).toBeCloseTo(0.5, 12);
  expect(progress.runs).toEqual({ done: 4, of: 6 });
  expect(progress.bytes).toBe(5);
  expect(progress.results).toEqual([
    { last: null, pieces: ['de', 'abc'] },
    { last: null, pieces: [] },
  ]);
});

test('a task that is lost with its worker and done once more is counted once, and the part never falls', () => {
  const progress = new JobProgress(PLAN);
  progress.hear({ kind: 'begun', key: '1.0' }, 0);
  progress.hear({ kind: 'part', key: '1.0', part: 0.75 }, 500);
  const before = progress.part;
  progress.hear({ kind: 'lost', key: '1.0' }, 1000);
  expect(progress.part).toBe(before);
  expect(progress.seconds(5000)).toBe(0);
  progress.hear({ kind: 'begun', key: '1.0' }, 5000);
  progress.hear({ kind: 'done', key: '1.0', text: 'x' }, 7000);
  // the worker that was cut off reports what another one has done
  progress.hear({ kind: 'done', key: '1.0', text: 'x' }, 9000);
  progress.hear({ kind: 'part', key: '1.0', part: 0.1 }, 9000);
  expect(progress.runs.done).toBe(2);
  expect(progress.bytes).toBe(1);
  expect(progress.seconds(9000)).toBe(2);
  expect(progress.part).toBeGreaterThanOrEqual(before);
});

test('the time is that of all tasks, one after another, those under way included', () => {
  const progress = new JobProgress(PLAN);
  progress.hear({ kind: 'begun', key: '0.0' }, 0);
  progress.hear({ kind: 'begun', key: '0.1' }, 0);
  expect(progress.seconds(3000)).toBe(6);
  progress.hear({ kind: 'done', key: '0.0', text: '' }, 4000);
  expect(progress.seconds(5000)).toBe(9);
});

test('news of a task that is in no plan is left alone', () => {
  const progress = new JobProgress(PLAN);
  progress.hear({ kind: 'done', key: '7.3', text: 'x' }, 0);
  expect(progress.bytes).toBe(0);
});
