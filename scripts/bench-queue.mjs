// What the queue costs and gains: 48 long runs by one and by two workers, and tasks of next to no work.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { root } from './fresh.mjs';
import { median } from './quantile.mjs';
import { withWorkers } from './queue-programs.mjs';

const { Redis } = createRequire(join(root, 'server/package.json'))('ioredis');

const TEXT = "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6\nlevel(t) = (2 - 0.35*t/2)^2";
const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*(k1 + k2)/2';

function study(methods, counts) {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: TEXT },
    methods: Array.from({ length: methods }, (_, i) => ({
      title: `Method ${i + 1}`,
      text: HEUN,
    })),
    ladder: { counts },
  };
}

/** Four methods at twelve step sizes; no two studies are alike, so that none is known. */
function longStudy(shift) {
  return study(
    4,
    Array.from({ length: 12 }, (_, i) => 40_000_000 + 100 * shift + i),
  );
}

/** Milliseconds of processor time that a process has taken so far. */
function processorTime(pid) {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  // in hundredths of a second, of the program and of the system for it
  return 10 * (Number(fields[11]) + Number(fields[12]));
}

async function redisFigures(redis) {
  const info = await redis.info();
  const value = (name) => Number(new RegExp(`^${name}:([\\d.]+)`, 'm').exec(info)[1]);
  return {
    cpu: 1000 * (value('used_cpu_user') + value('used_cpu_sys')),
    commands: value('total_commands_processed'),
    bytes: value('total_net_input_bytes') + value('total_net_output_bytes'),
  };
}

/** What one worker with tasks of next to no work needs for each: milliseconds from one to the next, and work of others. */
async function betweenTasks({ url, job, server }) {
  const redis = new Redis(url);
  await job('/jobs', { document: study(20, [3]) });
  const before = { ...(await redisFigures(redis)), server: processorTime(server) };
  for (let i = 0; i < 6; i += 1) await job('/jobs', { document: study(20, [4 + i]) });
  const after = { ...(await redisFigures(redis)), server: processorTime(server) };
  const each = Object.fromEntries(Object.keys(before).map((key) => [key, (after[key] - before[key]) / 246]));
  const [name] = await redis.keys('schritt:tasks-*:events');
  const events = await redis.xrange(name, '-', '+');
  redis.disconnect();
  const at = events
    .filter(([, fields]) => fields[fields.indexOf('event') + 1] === 'completed')
    .map(([id]) => Number(id.split('-')[0]));
  // the first study warms the thread up; between two studies nothing is to be done
  const gaps = at.slice(50).map((time, i) => time - at[50 + i - 1]);
  return { gaps: gaps.filter((gap, i) => i > 0 && gap < 100), each };
}

/** Milliseconds of the same tasks without a queue, one after another in this process. */
async function ownTime() {
  const { doTask } = await import(join(root, 'server/dist/tasks/do-task.js'));
  const request = { kind: 'study', document: study(20, [4]) };
  const times = [];
  const timed = async (task, results) => {
    const from = performance.now();
    const text = await doTask({ request, task, results }, () => {});
    times.push(performance.now() - from);
    return text;
  };
  for (let i = 0; i < 160; i += 1) {
    const method = i % 20;
    const text = await timed({ kind: 'runs', method, rungs: [0] }, []);
    await timed({ kind: 'method', method }, [text]);
  }
  return median(times);
}

/** Seconds of 48 long runs by one worker and by two, in turn, and milliseconds of a task. */
export async function benchQueue(rounds = 3) {
  const seconds = { 1: [], 2: [] };
  for (let round = 0; round < rounds; round += 1)
    for (const workers of [1, 2])
      seconds[workers].push(
        await withWorkers(workers, async ({ job }) => {
          await job('/jobs', { document: study(2, [1000]) });
          return (await job('/jobs', { document: longStudy(2 * round + workers) })).seconds;
        }),
      );
  const { gaps, each } = await withWorkers(1, betweenTasks);
  const own = await ownTime();
  const [one, two] = [median(seconds[1]), median(seconds[2])];
  const sorted = [...gaps].sort((a, b) => a - b);
  return {
    one,
    two,
    ratio: one / two,
    task: { count: gaps.length, median: median(gaps), own, p95: sorted[Math.floor(0.95 * sorted.length)] },
    each,
  };
}
