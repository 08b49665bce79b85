import { random } from './random.mjs';
import { randomText } from './texts.mjs';

/** Milliseconds that reading a text may take: in the median of three, and once. */
const MEDIAN = 50;
const ONCE = 200;
/** Milliseconds that everything else may take: checks, typesetting, compiling. */
const WORK = 3000;

/** Texts that a process reads before it is measured. */
const WARM = 1_000;

const METHODS = ['RK4', 'Implicit midpoint', 'Taylor 4', 'Adams-Bashforth 2', 'Gauss 2'];

/** Milliseconds of the processor, which another program on the machine does not lengthen as it does those of the clock. */
function timed(work) {
  const [from, before] = [performance.now(), process.cpuUsage()];
  const value = work();
  const { user, system } = process.cpuUsage(before);
  return { value, took: (user + system) / 1000, wall: performance.now() - from };
}

function medianOf(read, text, patience) {
  const times = [0, 1, 2].map(() => timed(() => read(text)).took);
  return times.some((took) => took > ONCE * patience) ? Infinity : times.sort((a, b) => a - b)[1];
}

/**
 * Reads random texts; of every so many that can be read one is checked, typeset, compiled and run.
 *
 * Times are those of the processor of this process.
 *
 * @param patience how many times longer than on a quiet machine everything may take
 * @returns how many were read, the slowest, and every fault: an exception that is no refusal, or something too slow
 */
export function fuzzTexts(core, count, seed, every = 1, patience = 1) {
  const r = random(seed);
  const library = new Map(core.LIBRARY.map(({ title, text }) => [title, core.parseMethod(text).value]));
  const probe = core.parseProblem("y' = -y + t\ny(0) = 1\n0 <= t <= 1").value;
  // the first few hundred readings of a process measure how it compiles the reader
  const before = random(0);
  for (let i = 0; i < WARM; i += 1) {
    const { kind, text } = randomText(before);
    (kind === 'problem' ? core.parseProblem : core.parseMethod)(text);
  }
  const faults = [];
  const worst = { read: 0, work: 0, wall: 0 };
  let good = 0;
  const slow = (what, took, text) => faults.push({ what: `${what} took ${took.toFixed(0)} ms`, text });
  const attempt = (what, text, work) => {
    try {
      const { took } = timed(work);
      worst.work = Math.max(worst.work, took);
      if (took > WORK * patience) slow(what, took, text);
    } catch (thrown) {
      if (!(thrown instanceof core.Refusal)) faults.push({ what: `${what}: ${thrown}`, text });
    }
  };
  for (let i = 0; i < count; i += 1) {
    const { kind, text } = randomText(r);
    const read = kind === 'problem' ? core.parseProblem : core.parseMethod;
    let reading;
    try {
      const first = timed(() => read(text));
      reading = first.value;
      worst.wall = Math.max(worst.wall, first.wall);
      if (first.took > ONCE * patience) slow('reading once', first.took, text);
      if (first.took > MEDIAN * patience) {
        const median = medianOf(read, text, patience);
        worst.read = Math.max(worst.read, median);
        if (median > MEDIAN * patience) slow('reading', median, text);
      } else worst.read = Math.max(worst.read, first.took);
    } catch (thrown) {
      faults.push({ what: `reading: ${thrown}`, text });
      continue;
    }
    if (!reading.ok) {
      if (
        reading.errors.length === 0 ||
        reading.errors.length > 100 ||
        reading.errors.some((e) => !(e.line >= 1 && e.column >= 1))
      )
        faults.push({ what: 'errors without a place', text });
      continue;
    }
    good += 1;
    if (good % every !== 0) continue;
    const { value } = reading;
    if (kind === 'problem') {
      attempt('the check', text, () => core.checkExact(value));
      attempt('the check of derivatives', text, () => core.checkTyped(value));
      attempt('typesetting', text, () => [
        core.problemTex(value),
        core.systemTex(value),
        core.systemText(value),
      ]);
      const title = METHODS[i % METHODS.length];
      attempt(`compiling ${title}`, text, () => {
        const run = core.compileRun(value, library.get(title), {
          start: { kind: 'method', run: core.compileRun(value, library.get('RK4')) },
        });
        // a system of many components is solved in its own time, and can be cancelled
        if (value.size > 50) return;
        core.integrate(run, core.layGrid(value.start ?? 0, value.end ?? 1, { steps: 3 }));
      });
    } else {
      attempt('typesetting', text, () => core.methodTex(value));
      attempt('compiling', text, () => {
        const start = { kind: 'method', run: core.compileRun(probe, library.get('RK4')) };
        core.integrate(
          core.compileRun(probe, value, { start }),
          core.layGrid(value.start ?? 0, value.end ?? 1, { steps: 3 }),
        );
      });
    }
  }
  return { count, good, worst, faults };
}
