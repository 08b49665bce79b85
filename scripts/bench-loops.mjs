// Generated loops beside the same loops written by hand in C and Python: in Node, and in the engine of Firefox.
import { execFileSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { CASES } from '../bench/cases.mjs';
import { engines } from './debian.mjs';
import { root } from './fresh.mjs';
import { median } from './quantile.mjs';

const REPEATS = 5;
/** Rounds of one repeat, of which the fastest counts: both meet the same machine in each. */
const ROUNDS = 6;

function programOf({ file }, folder) {
  const program = join(folder, file);
  const source = join(root, 'bench/loops', `${file}.c`);
  execFileSync('gcc', ['-O2', '-ffp-contract=off', '-o', program, source, '-lm']);
  return program;
}

const inC = (program, steps) => JSON.parse(execFileSync(program, [String(steps)], { encoding: 'utf8' }));

/** One case: medians over repeats of the fastest rounds of our loop and of that in C, and of their ratio. */
async function measured(item, program, run) {
  const { steps, shown } = item;
  await run(Math.min(10_000, steps));
  let same = true;
  const repeats = [];
  for (let repeat = 0; repeat < REPEATS; repeat += 1) {
    let [ours, theirs] = [Infinity, Infinity];
    for (let round = 0; round < ROUNDS; round += 1) {
      const mine = await run(steps);
      const other = inC(program, steps);
      ours = Math.min(ours, mine.seconds);
      theirs = Math.min(theirs, other.seconds);
      const values = shown === undefined ? mine.values : shown.map((j) => mine.values[j]);
      same &&= other.values.every((value, j) => value === values[j]);
    }
    repeats.push({ ours, theirs, ofC: theirs / ours });
  }
  return {
    nanosecondsPerStep: (median(repeats.map(({ ours }) => ours)) / steps) * 1e9,
    cNanosecondsPerStep: (median(repeats.map(({ theirs }) => theirs)) / steps) * 1e9,
    ofC: median(repeats.map(({ ofC }) => ofC)),
    sameBits: same,
  };
}

/** Our loop over Python's, a step; null where there is none in Python. */
function overPython({ file, pythonSteps }, nanosecondsPerStep) {
  if (pythonSteps === undefined) return null;
  const source = join(root, 'bench/loops', `${file}.py`);
  const { seconds } = JSON.parse(
    execFileSync('python3', [source, String(pythonSteps)], { encoding: 'utf8' }),
  );
  return ((seconds / pythonSteps) * 1e9) / nanosecondsPerStep;
}

/** All cases in this process. */
export async function benchLoops(runnerOf, folder) {
  const rows = [];
  for (const item of CASES) {
    const found = await measured(item, programOf(item, folder), runnerOf(item));
    rows.push({ name: item.name, ...found, overPython: overPython(item, found.nanosecondsPerStep) });
  }
  return rows;
}

/** All cases in the page of Firefox. */
export async function benchLoopsInFirefox(folder) {
  engines();
  const require = createRequire(join(root, 'e2e/package.json'));
  const { launch } = require('puppeteer-core');
  const { rolldown } = await import(require.resolve('rolldown'));
  const bundle = await rolldown({
    input: join(root, 'bench/loop-in-page.mjs'),
    platform: 'browser',
    resolve: { conditionNames: ['@schritt/source', 'module', 'browser', 'default'] },
  });
  const { output } = await bundle.generate({ format: 'iife' });
  const browser = await launch({
    browser: 'firefox',
    executablePath: '/usr/bin/firefox-esr',
    headless: true,
  });
  try {
    const page = await browser.newPage();
    await page.evaluate(output[0].code);
    const rows = [];
    for (const { name, problem, method, ...item } of CASES) {
      await page.evaluate(`globalThis.prepareLoop(${JSON.stringify({ problem, method })})`);
      const run = (steps) => page.evaluate(`globalThis.runLoop(${steps})`);
      rows.push({ name, ...(await measured(item, programOf(item, folder), run)) });
    }
    return rows;
  } finally {
    await browser.close();
  }
}
