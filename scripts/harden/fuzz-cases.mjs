import { fork } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { clearInterval, setInterval } from 'node:timers';
import { root } from '../fresh.mjs';

/** Seconds after which a case that does not end is reported, and its process ended. */
const HANGS = 30;
/** Megabytes of memory that a process may take. */
const MEMORY = 1024;

/**
 * Runs one process over its cases, again behind one that has ended it; answers its last sign of life, and such cases.
 */
async function share(task, underWay) {
  const broken = [];
  let from = 0;
  let last = { done: 0, worst: { seconds: 0, phase: '', seed: 0 }, peak: 0, total: 0 };
  let [total, peak, worst] = [0, 0, last.worst];
  while (from < task.count) {
    const child = fork(join(root, 'fuzz/dist/child.js'), [JSON.stringify({ ...task, from })], {
      execArgv: [`--max-old-space-size=${MEMORY}`],
    });
    child.on('message', (sign) => (last = sign));
    let hangs = false;
    const watch = setInterval(() => {
      hangs = existsSync(underWay) && Date.now() - statSync(underWay).mtimeMs > 1000 * HANGS;
      if (hangs) child.kill('SIGKILL');
    }, 1000);
    const code = await new Promise((done) => child.on('exit', done));
    clearInterval(watch);
    total += last.total;
    peak = Math.max(peak, last.peak);
    if (last.worst.seconds > worst.seconds) worst = last.worst;
    if (code === 0) break;
    const { seed, text } = JSON.parse(readFileSync(underWay, 'utf8'));
    broken.push({
      phase: 'all',
      what: hangs ? `took longer than ${HANGS} s` : `ended its process with ${code}`,
      seed,
      case: text,
    });
    from = seed - task.seed + 1;
    last = { ...last, total: 0 };
  }
  return { total, peak, worst, broken };
}

/**
 * Sends cases of the grammar through everything that is derived from texts, in as many processes as there are cores.
 *
 * @returns how many texts there were, the slowest phase of one, the largest memory of a process, and every fault
 */
export async function fuzzCases(folder, count, seed, maxSeconds) {
  const processes = availableParallelism();
  const each = Math.ceil(count / processes);
  const shares = await Promise.all(
    Array.from({ length: processes }, (_, i) => {
      const underWay = join(folder, `case-${i}.json`);
      const faults = join(folder, `faults-${i}.jsonl`);
      return share({ seed: seed + i * each, count: each, maxSeconds, underWay, faults }, underWay).then(
        (own) => ({
          ...own,
          faults: existsSync(faults)
            ? readFileSync(faults, 'utf8')
                .trim()
                .split('\n')
                .map((line) => JSON.parse(line))
            : [],
        }),
      );
    }),
  );
  const worst = shares.map((one) => one.worst).sort((a, b) => b.seconds - a.seconds)[0];
  return {
    texts: 3 * each * processes,
    seconds: shares.reduce((sum, { total }) => sum + total, 0),
    peak: Math.max(...shares.map(({ peak }) => peak)),
    worst,
    faults: shares.flatMap(({ broken, faults }) => [...broken, ...faults]),
  };
}
