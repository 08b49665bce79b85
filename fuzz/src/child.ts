import { appendFileSync, writeFileSync } from 'node:fs';
import * as fc from 'fast-check';
import { cases, TEXTS_PER_CASE } from './cases.ts';
import { throughAllPhases } from './phases.ts';

/** What a process of the long form is to do. */
interface Task {
  readonly seed: number;
  readonly count: number;
  /** Seconds of processor time that one phase may take. */
  readonly maxSeconds: number;
  /** Cases to pass over, since one of them ended the process before. */
  readonly from: number;
  /** Where the case under way is written, so that one that never ends can be told. */
  readonly underWay: string;
  /** Where faults are written, one per line. */
  readonly faults: string;
}

/** Cases between two progress reports. */
const SIGN = 50;

function isTask(value: unknown): value is Task {
  return typeof value === 'object' && value !== null && 'seed' in value && 'faults' in value;
}

const task: unknown = JSON.parse(process.argv[2] ?? '{}');
if (!isTask(task)) throw new Error('the task of this process cannot be read');
let worst = { seconds: 0, phase: '', seed: 0 };
let total = 0;
let peak = 0;
for (let i = task.from; i < task.count; i += 1) {
  const [one] = fc.sample(cases, { seed: task.seed + i, numRuns: 1 });
  if (one === undefined) continue;
  const text = JSON.stringify(one);
  writeFileSync(task.underWay, JSON.stringify({ seed: task.seed + i, text }));
  const before = process.cpuUsage();
  const { faults, slowest } = await throughAllPhases(one, task.seed + i);
  const { user, system } = process.cpuUsage(before);
  const seconds = (user + system) / 1e6;
  total += seconds;
  if (slowest.seconds > worst.seconds) worst = { ...slowest, seed: task.seed + i };
  peak = Math.max(peak, process.memoryUsage().rss);
  const slow =
    slowest.seconds > task.maxSeconds
      ? [{ phase: slowest.phase, what: `took ${slowest.seconds} s of processor time` }]
      : [];
  for (const fault of [...faults, ...slow])
    appendFileSync(task.faults, `${JSON.stringify({ seed: task.seed + i, ...fault, case: one })}\n`);
  if ((i + 1) % SIGN === 0 || i + 1 === task.count)
    process.send?.({ done: i + 1, texts: TEXTS_PER_CASE * (i + 1 - task.from), worst, peak, total });
}
process.exit(0);
