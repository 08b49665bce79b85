// Speed as ratios measured in one run, each goal beside its figure: loops beside C, studies beside their loops, the page.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { CASES, DECIMALS, LONG_TEXTS, READINGS, STUDIES } from '../bench/cases.mjs';
import { benchLoops, benchLoopsInFirefox } from './bench-loops.mjs';
import { benchOrders } from './bench-orders.mjs';
import { benchPage } from './bench-page.mjs';
import { benchQueue } from './bench-queue.mjs';
import { buildNode, install, root } from './fresh.mjs';
import { median } from './quantile.mjs';

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
const REPEATS = 5;

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

/** What was measured beside what it is to be. */
const goals = [];
const atLeast = (what, figure, goal) =>
  goals.push({ what, figure, goal: `at least ${goal}`, isMet: figure >= goal });
const atMost = (what, figure, goal) =>
  goals.push({ what, figure, goal: `at most ${goal}`, isMet: figure <= goal });

const rows = await benchLoops((item) => {
  const run = compiled(item);
  return (steps) => measure(run, steps);
}, folder);
for (const { name, ofC } of rows) atLeast(`speed of C: ${name}`, ofC, 1);
const firefoxRows = await benchLoopsInFirefox(folder);
for (const { name, ofC } of firefoxRows) atLeast(`speed of C in Firefox: ${name}`, ofC, 0.8);

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
/** Runs with decimal digits beside the same run in doubles: operations a second, and seconds. */
const decimals = DECIMALS.digits.map((digits) => {
  const problem = core.parseProblem(DECIMALS.problem).value;
  const { text } = core.LIBRARY.find(({ title }) => title === DECIMALS.method);
  const method = core.parseMethod(text).value;
  const precision = { digits, rounding: 'half-even', rounded: 'operations' };
  const run = core.compileRun(problem, method, { precision });
  const double = core.compileRun(problem, method);
  measure(run, 256);
  measure(double, 256);
  const { seconds } = measure(run, DECIMALS.steps);
  return {
    digits,
    seconds,
    perSecond: (run.decimal.operations * DECIMALS.steps) / seconds,
    overDouble: seconds / (measure(double, 64 * DECIMALS.steps).seconds / 64),
  };
});

function studyDocument({ name, problem, methods, counts }, k) {
  return {
    schritt: 1,
    kind: 'study',
    title: name,
    problem: { title: name, text: problem(k) },
    methods: methods.map((title) => core.LIBRARY.find((method) => method.title === title)),
    ladder: { counts },
  };
}

function opened(document) {
  const found = core.openStudy(document);
  if (!found.ok) throw new Error(JSON.stringify(found.errors));
  return found.study;
}

/** Milliseconds of something. */
function timeOf(work) {
  const from = performance.now();
  work();
  return performance.now() - from;
}

/**
 * Milliseconds of whole studies, texts to findings, beside those of their loops alone: of the same study again and again,
 * and of one whose parameter has another value each time, as a slider gives it.
 */
const studies = STUDIES.map((item) => {
  const repeats = Array.from({ length: REPEATS }, (_, repeat) => {
    const [same, moved, loops] = [[], [], []];
    for (let round = 0; round < 9; round += 1) {
      same.push(timeOf(() => core.runStudy(opened(studyDocument(item, '0.35')))));
      const other = `0.35${repeat}${round}7`;
      moved.push(timeOf(() => core.runStudy(opened(studyDocument(item, other)))));
      const { problem, methods } = opened(studyDocument(item, '0.35'));
      const runs = methods.map(({ method }) =>
        core.compileWithStart(problem, method, { find: core.findInLibrary, instead: null }),
      );
      loops.push(
        timeOf(() => {
          for (const run of runs)
            for (const steps of item.counts)
              core.integrate(run, core.layGrid(problem.start, problem.end, { steps }));
        }),
      );
    }
    return { same: median(same), moved: median(moved), loops: median(loops) };
  });
  const middle = (of) => median(repeats.map(of));
  return {
    name: item.name,
    milliseconds: middle(({ same }) => same),
    moved: middle(({ moved }) => moved),
    loops: middle(({ loops }) => loops),
    ratio: middle(({ same, loops }) => same / loops),
    movedRatio: middle(({ moved, loops }) => moved / loops),
  };
});
for (const { name, ratio, movedRatio } of studies) {
  atMost(`a study over its loops: ${name}`, ratio, 2);
  atMost(`the same with a parameter moved: ${name}`, movedRatio, 2);
}

/** Milliseconds of the first study of a process, its modules loaded. */
const firstStudy = median(
  Array.from({ length: REPEATS }, () =>
    Number(
      execFileSync(process.execPath, [join(root, 'bench/first-study.mjs')], { encoding: 'utf8' }).trim(),
    ),
  ),
);
atMost('first study of a process, ms', firstStudy, 150);
rmSync(folder, { recursive: true });

const orders = await benchOrders();
const queue = await benchQueue();
atLeast('48 long runs by two workers, times as fast as by one', queue.ratio, 1.7);
atMost('a task beyond its own work, ms', queue.task.median - queue.task.own, 10);
const page = await benchPage(core.LIBRARY);
for (const [name, found] of Object.entries(page.browsers)) {
  atMost(`${name}: first table of a fresh browser, ms`, found.coldMilliseconds.painted, 800);
  atMost(`${name}: typed digit to new numbers, median ms`, found.typedMilliseconds.median, 50);
  atMost(`${name}: the same, 95th percentile ms`, found.typedMilliseconds.p95, 100);
  atMost(`${name}: frame of a drag over twelve methods, median ms`, found.drag.median, 17);
  atMost(`${name}: the longest of them, ms`, found.drag.longest, 33);
  atMost(`${name}: frame of a scroll through a million rows, 95th percentile ms`, found.scroll.p95, 18);
  atMost(`${name}: frame while a class is marked, 95th percentile ms`, found.marking.p95, 18);
  atMost(`${name}: the longest of them, ms`, found.marking.longest, 33);
  atMost(`${name}: frame while a method is inspected, 95th percentile ms`, found.inspecting.p95, 18);
  atMost(`${name}: the longest of them, ms`, found.inspecting.longest, 33);
}
for (const { name, milliseconds, target } of readings)
  atMost(`read and compile ${name}, ms`, milliseconds, target);
for (const { digits, perSecond, seconds } of decimals)
  if (digits === DECIMALS.target.digits) {
    atLeast(`operations a second with ${digits} digits`, perSecond, DECIMALS.target.perSecond);
    atMost(`${DECIMALS.steps} steps with ${digits} digits, s`, seconds, DECIMALS.target.seconds);
  }
for (const { steps, ratio } of growing)
  atMost(`time a step at ${steps} steps over that at 10,000`, ratio, 1.05);

const figure = (value) =>
  value >= 1000 ? value.toExponential(1) : value >= 10 ? value.toFixed(1) : value.toFixed(2);
console.log(
  core.plainTable(
    ['case', 'ns a step', 'C', 'speed of C', 'in Firefox', 'times Python', 'same bits'],
    rows.map((r, i) => [
      r.name,
      r.nanosecondsPerStep.toFixed(1),
      r.cNanosecondsPerStep.toFixed(1),
      r.ofC.toFixed(2),
      firefoxRows[i].ofC.toFixed(2),
      r.overPython === null ? '' : r.overPython.toFixed(0),
      r.sameBits && firefoxRows[i].sameBits ? 'yes' : 'no',
    ]),
  ),
);
console.log();
for (const { name, milliseconds, moved, loops } of studies)
  console.log(
    `${name}: ${milliseconds.toFixed(1)} ms a study, ${moved.toFixed(1)} with a parameter moved, ${loops.toFixed(2)} of loops`,
  );
for (const { digits, perSecond, seconds, overDouble } of decimals)
  console.log(
    `${digits} digits: ${perSecond.toExponential(1)} operations a second, ${seconds.toFixed(2)} s for ${DECIMALS.steps} steps, ${overDouble.toFixed(0)} times as long as doubles`,
  );
console.log(
  `over the wire: ${page.kilobytes.script} kB of scripts, ${page.kilobytes.font} of fonts, ${page.kilobytes.other} else`,
);
console.log();
console.log(
  core.plainTable(
    ['goal', 'figure', 'wanted', 'met'],
    goals.map(({ what, figure: value, goal, isMet }) => [what, figure(value), goal, isMet ? 'yes' : 'no']),
  ),
);
const report = {
  node: process.version,
  processor: cpus()[0]?.model ?? '',
  goals,
  rows,
  firefoxRows,
  readings,
  studies,
  firstStudy,
  decimals,
  growing,
  orders,
  queue,
  page,
};
writeFileSync(join(root, 'bench/results.json'), `${JSON.stringify(report, null, 2)}\n`);
