// Speed beside a C and a Python loop written by hand, as ratios measured in one run.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { ALONE, CASES, LONG_TEXTS, READINGS, STUDY } from '../bench/cases.mjs';
import { benchOrders } from './bench-orders.mjs';
import { benchPage } from './bench-page.mjs';
import { benchQueue } from './bench-queue.mjs';
import { buildNode, install, root } from './fresh.mjs';

install();
buildNode(['core']);
const entries = await Promise.all(
  [
    ...['notation', 'text', 'study', 'document', 'format'],
    ...['run/integrate', 'compile/compile', 'method/library/find-method'],
  ].map((name) => import(join(root, `core/dist/${name}.js`))),
);
const core = Object.assign({}, ...entries);
const folder = mkdtempSync(join(tmpdir(), 'schritt-bench-'));
const ROUNDS = 40;

function compiled({ problem, method }) {
  const p = core.parseProblem(problem);
  const m = core.parseMethod(method);
  if (!p.ok || !m.ok) throw new Error(JSON.stringify([p.errors, m.errors]));
  return core.compileWithStart(p.value, m.value, { find: core.findInLibrary, instead: null });
}

function measure(run, steps) {
  const { start, end } = run.problem;
  const grid = core.layGrid(start, end, { steps });
  const from = performance.now();
  const { values } = core.integrate(run, grid);
  return { seconds: (performance.now() - from) / 1000, values: Array.from(values) };
}

const rows = [];
for (const item of CASES) {
  const { name, file, steps, pythonSteps, target } = item;
  const program = join(folder, file);
  execFileSync('gcc', [
    '-O2',
    '-ffp-contract=off',
    '-o',
    program,
    join(root, 'bench/loops', `${file}.c`),
    '-lm',
  ]);
  const run = compiled(item);
  measure(run, 10_000);
  let ours = Infinity;
  let c = Infinity;
  let same = true;
  for (let round = 0; round < ROUNDS; round += 1) {
    // side by side in every round, so that both meet the same machine
    const mine = measure(run, steps);
    const theirs = JSON.parse(execFileSync(program, [String(steps)], { encoding: 'utf8' }));
    ours = Math.min(ours, mine.seconds);
    c = Math.min(c, theirs.seconds);
    const shown = (item.shown ?? mine.values.map((_, j) => j)).map((j) => mine.values[j]);
    same &&= theirs.values.every((value, j) => value === shown[j]);
  }
  const python = JSON.parse(
    execFileSync('python3', [join(root, 'bench/loops', `${file}.py`), String(pythonSteps)], {
      encoding: 'utf8',
    }),
  );
  rows.push({
    name,
    nanosecondsPerStep: (ours / steps) * 1e9,
    cNanosecondsPerStep: (c / steps) * 1e9,
    ofC: c / ours,
    target,
    overPython: python.seconds / pythonSteps / (ours / steps),
    sameBits: same,
  });
}
const alone = ALONE.map((item) => {
  const run = compiled(item);
  measure(run, 10_000);
  return { name: item.name, nanosecondsPerStep: (measure(run, item.steps).seconds / item.steps) * 1e9 };
});

function median(values) {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
}

/**
 * Time a step from ten thousand steps to a hundred million, as a ratio to the shortest: the median over pieces of
 * 10,000 steps of one run, each beside a whole run of 10,000 steps on the same machine in the same moment.
 */
const growing = (() => {
  const run = compiled(CASES[0]);
  measure(run, 1_000_000);
  const PIECE = 10_000;
  return [1e5, 1e6, 1e7, 1e8].map((steps) => {
    const at = core.begin(run, core.layGrid(run.problem.start, run.problem.end, { steps }));
    const ratios = [];
    while (at.n < steps) {
      const from = performance.now();
      core.goTo(at, at.n + PIECE);
      const own = performance.now() - from;
      ratios.push(own / (measure(run, PIECE).seconds * 1000));
    }
    return { steps, ratio: median(ratios) };
  });
})();

/** Median milliseconds of reading and compiling a problem. */
function readingTime(text) {
  const method = core.parseMethod(CASES[0].method);
  const times = Array.from({ length: 41 }, () => {
    const from = performance.now();
    const problem = core.parseProblem(text);
    if (!problem.ok) throw new Error(problem.errors[0].message);
    core.compileRun(problem.value, method.value);
    return performance.now() - from;
  });
  return median(times);
}

/** Median milliseconds of reading a text, whether it is a problem or not. */
function lookingTime(text) {
  return median(
    Array.from({ length: 21 }, () => {
      const from = performance.now();
      core.parseProblem(text);
      return performance.now() - from;
    }),
  );
}

const readings = [
  ...READINGS.map(({ name, text, target }) => ({ name, milliseconds: readingTime(text), target })),
  ...LONG_TEXTS.map(({ name, text, target }) => ({ name, milliseconds: lookingTime(text), target })),
];
/** Milliseconds of a whole study, texts to findings: the first one of a fresh process, and the median of later ones. */
const study = (() => {
  const document = {
    schritt: 1,
    kind: 'study',
    title: STUDY.name,
    problem: { title: STUDY.name, text: STUDY.problem },
    methods: STUDY.methods.map((title) => core.LIBRARY.find((method) => method.title === title)),
    ladder: { counts: STUDY.intervals },
  };
  const times = Array.from({ length: 21 }, () => {
    const from = performance.now();
    const opened = core.openStudy(document);
    if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
    core.runStudy(opened.study);
    return performance.now() - from;
  });
  return { name: STUDY.name, first: times[0], milliseconds: median(times), target: STUDY.target };
})();
rmSync(folder, { recursive: true });

console.log(
  core.plainTable(
    ['case', 'ns a step', 'C', 'speed of C', 'target', 'times Python', 'same bits'],
    rows.map((r) => [
      r.name,
      r.nanosecondsPerStep.toFixed(1),
      r.cNanosecondsPerStep.toFixed(1),
      r.ofC.toFixed(2),
      String(r.target),
      r.overPython.toFixed(0),
      r.sameBits ? 'yes' : 'no',
    ]),
  ),
);
console.log();
console.log(
  core.plainTable(
    ['read and compile', 'ms', 'at most'],
    readings.map((r) => [r.name, r.milliseconds.toFixed(2), String(r.target)]),
  ),
);
console.log();
console.log(
  `${study.name}: ${study.milliseconds.toFixed(1)} ms a study, at most ${study.target}; the first ${study.first.toFixed(0)} ms`,
);
for (const { name, nanosecondsPerStep } of alone)
  console.log(`${name}: ${nanosecondsPerStep.toFixed(0)} ns a step`);
for (const { steps, ratio } of growing)
  console.log(`${steps.toLocaleString('en')} steps: ${ratio.toFixed(3)} of the time a step that 10,000 need`);
console.log('\n| methods | studies | stated | held | share | printed | median width | 90 % below |');
const orders = await benchOrders();
const queue = await benchQueue();
const page = await benchPage(core.LIBRARY);
console.log(
  `48 long runs: ${queue.one.toFixed(1)} s by one worker, ${queue.two.toFixed(1)} s by two, ${queue.ratio.toFixed(2)} times as fast, at least 1.7; ` +
    `a task costs ${(queue.task.median - queue.task.own).toFixed(1)} ms more than its own work, at most 10`,
);
console.log(
  `the page: ${page.coldMilliseconds.toFixed(0)} ms to a first view, at most 1500; ${page.typedMilliseconds.toFixed(0)} ms from a typed digit to new numbers, at most 100; ` +
    `a drag over twelve methods ${page.dragFrameMilliseconds.p95.toFixed(0)} ms a frame at the 95th percentile, at most 33; ` +
    `over the wire ${page.kilobytes.script} kB of scripts, ${page.kilobytes.font} of fonts, ${page.kilobytes.other} else`,
);
const report = {
  node: process.version,
  processor: cpus()[0]?.model ?? '',
  rows,
  readings,
  study,
  alone,
  growing,
  orders,
  queue,
  page,
};
writeFileSync(join(root, 'bench/results.json'), `${JSON.stringify(report, null, 2)}\n`);
