// Tries to break Schritt from outside: texts of a grammar through everything that is derived from them, random files,
// requests made to hold it up, kills, many readers, a full disk, a greedy job, two servers over one folder. `full`
// measures on
// a quiet machine and writes docs/hardening.md; `short`, beside everything else, watches that nothing breaks or hangs;
// `texts`, for a night, tries many more texts and nothing else.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildNode, root } from './fresh.mjs';
import { containerSteps } from './harden/container.mjs';
import { fullDisk } from './harden/full-disk.mjs';
import { fuzzCases } from './harden/fuzz-cases.mjs';
import { fuzzDocuments } from './harden/fuzz-documents.mjs';
import { killServer } from './harden/kills.mjs';
import { greedyJob } from './harden/memory.mjs';
import { nastyRequests } from './harden/nasty.mjs';
import { manyReaders, sharedReaders } from './harden/readers.mjs';
import { twoServers } from './harden/two-servers.mjs';

const SIZES = {
  // a minute of the same cases is a property test of Jest
  short: { cases: 100, documents: 10_000, kills: 4, readers: 200, seconds: 3, patience: 20 },
  full: { cases: 3_000, documents: 100_000, kills: 200, readers: 500, seconds: 10, patience: 1 },
  texts: { cases: 67_000, documents: 0, kills: 0, readers: 0, seconds: 0, patience: 1 },
};
const SEED = 1_000_000;

/** The steps of the container file, in a folder. */
const CONTAINER = [
  'The container file makes a server',
  'its steps in a copy of all files that are kept, and a server from what they made',
  async () => {
    const { ran, studies, hasPage } = await containerSteps();
    return {
      figure: `${ran.length} steps; the server answers ${studies} studies`,
      faults: studies > 0 && hasPage ? [] : ['it does not serve'],
    };
  },
];

async function loadCore() {
  const entries = await Promise.all(
    ['notation', 'text', 'study', 'document', 'format', 'method/library/find-method'].map(
      (name) => import(join(root, `core/dist/${name}.js`)),
    ),
  );
  return Object.assign({}, ...entries);
}

const ms = (x) => `${x.toFixed(x < 10 ? 1 : 0)} ms`;
const count = (n) => n.toLocaleString('en-US');

/** Runs test files of Jest; answers how many tests passed, and those that failed. */
function tests(...files) {
  const { stdout } = spawnSync(
    process.execPath,
    [join(root, 'node_modules/jest/bin/jest.js'), '--json', '--silent', ...files],
    { cwd: root, encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'], maxBuffer: 2 ** 26 },
  );
  const { numPassedTests, testResults } = JSON.parse(stdout);
  const failed = testResults.flatMap(({ assertionResults }) =>
    assertionResults.filter(({ status }) => status === 'failed').map(({ fullName }) => fullName),
  );
  return { passed: numPassedTests, failed };
}

/** Every promise with the way in which it is tried. Each answers a figure and its faults. */
function promises(size, folder) {
  const { cases, documents, kills, readers, seconds, patience } = SIZES[size];
  return [
    [
      'No text makes anything that is derived from it fail with an exception, take 2 s of processor time in one phase, or 1 GB',
      `${count(3 * cases)} texts of a grammar (typed functions, Jacobians, linearly implicit and multistep methods, families, foreign notations, spoiled texts), seeds from ${count(SEED)}, each through reading, checks, TeX, analysis, compiling in both precisions, rows, worked step, study, report and one export`,
      async () => {
        const { worst, peak, seconds: spent, faults } = await fuzzCases(folder, cases, SEED, 2 * patience);
        const mean = (1000 * spent) / (3 * cases);
        return {
          figure: `slowest phase ${worst.seconds.toFixed(2)} s (${worst.phase}, seed ${worst.seed}); largest process ${count(Math.round(peak / 1e6))} MB; ${mean.toFixed(0)} ms a text`,
          faults: faults.map(({ phase, what, seed }) => `${phase}, seed ${seed}: ${what.split('\n')[0]}`),
        };
      },
    ],
    [
      'No file breaks the reader',
      `${count(documents)} spoiled files of the demo data, seed 7`,
      async () => {
        const core = await loadCore();
        const demo = readdirSync(join(root, 'demo'))
          .filter((name) => name.endsWith('.schritt.json'))
          .map((name) => JSON.parse(readFileSync(join(root, 'demo', name), 'utf8')));
        const { good, worst, faults } = fuzzDocuments(core, demo, documents, 7, patience);
        return {
          figure: `${count(good)} were documents; longest reading and opening ${ms(worst)}`,
          faults: faults.map(({ what }) => what),
        };
      },
    ],
    [
      'Without a session no route is reached, and nothing changes',
      'every route of the API in 27 spellings, by 7 methods, with 3 sets of overriding headers (`access/routes.test.ts`)',
      async () => {
        const { passed, failed } = tests('server/src/access');
        return { figure: `${passed} tests`, faults: failed };
      },
    ],
    [
      'No request holds the server up',
      'large, wide, deep and malformed bodies, with and without a session, five times each, while health is asked every 5 ms',
      async () => {
        const { cases: tried, slowest, faults } = await nastyRequests(join(folder, 'nasty'), patience);
        const late = slowest.health < 50 * patience ? [] : ['health took more than 50 ms'];
        return {
          figure: `${tried} requests; slowest answer ${ms(slowest.took)} (${slowest.what}); health within ${ms(slowest.health)} for 99 in 100, at most ${ms(slowest.healthMost)}`,
          faults: [...faults, ...late],
        };
      },
    ],
    [
      'What is acknowledged is on the disk',
      `kill -9 ${kills} times while four writers save, seed 3`,
      async () => {
        const { saves, lost, slowest } = await killServer(join(folder, 'kills'), kills, 3);
        return {
          figure: `${count(saves)} acknowledged saves, ${lost} lost; longest start ${ms(slowest)}`,
          faults: lost === 0 ? [] : [`${lost} acknowledged saves are lost`],
        };
      },
    ],
    [
      'A copy is verified before it replaces anything, and holds what was written last',
      'copies of every layout of the store, after a kill -9 that left the last writes in the log; changed, cut and foreign files; a store of zero bytes (`store/store.test.ts`)',
      async () => {
        const { passed, failed } = tests('server/src/store');
        return { figure: `${passed} tests`, faults: failed };
      },
    ],
    [
      'One server a data folder',
      'a second server in the same process namespace and in one of its own; a new one after kill -9',
      async () => {
        const { apart, faults } = await twoServers(join(folder, 'two'));
        return {
          figure: apart ? 'both are refused' : 'refused; a process namespace could not be made here',
          faults,
        };
      },
    ],
    [
      'Many readers are served',
      `${readers} readers for ${seconds} s on a list of 100 studies`,
      async () => {
        const { asked, median, p99, errors } = await manyReaders(join(folder, 'readers'), readers, seconds);
        return {
          figure: `${count(asked)} answers, median ${ms(median)}, 99 in 100 within ${ms(p99)}, ${errors} errors`,
          faults: [
            ...(errors === 0 ? [] : [`${errors} errors`]),
            ...(p99 < 200 * patience ? [] : ['more than 200 ms for one in a hundred']),
          ],
        };
      },
    ],
    [
      'A class reads one shared study',
      `${readers} readers who ask once a second, and again with the ETag of what they have`,
      async () => {
        const { asked, unchanged, median, p99, errors } = await sharedReaders(
          join(folder, 'shared'),
          readers,
          seconds,
        );
        return {
          figure: `${count(asked)} answers, ${count(unchanged)} of them "not changed", median ${ms(median)}, 99 in 100 within ${ms(p99)}, ${errors} errors`,
          faults: [
            ...(errors === 0 ? [] : [`${errors} errors`]),
            ...(unchanged > 0 ? [] : ['nothing was answered as not changed']),
            ...(p99 < 200 * patience ? [] : ['more than 200 ms for one in a hundred']),
          ],
        };
      },
    ],
    [
      'A job that asks for too much ends alone',
      '24 methods x 40 step sizes x 20,000 components',
      async () => {
        const { state, why, megabytes, database, health, goesOn } = await greedyJob(join(folder, 'greedy'));
        return {
          figure: `${state}: ${why}; server at most ${megabytes.toFixed(0)} MB, store ${database.toFixed(1)} MB; health within ${ms(health)}`,
          faults:
            goesOn && state === 'failed' ? [] : ['the next job is not taken, or this one was not refused'],
        };
      },
    ],
    [
      'A full disk loses nothing',
      'a disk of 6 MB that becomes full, then has room again',
      async () => {
        const { tried, stored, refused, faults } = await fullDisk(join(folder, 'disk'));
        if (!tried) return { figure: 'not tried: no right to mount a small disk here', faults: [] };
        return {
          figure: `after ${stored} saves answered ${refused?.status}, "${refused?.message}"; with room again it goes on`,
          faults,
        };
      },
    ],
    // minutes of work
    ...(size === 'full' ? [CONTAINER] : []),
  ];
}

function table(rows, size) {
  const cell = (text) => text.replaceAll('|', '\\|');
  const lines = rows.map(
    ({ promise, how, figure, faults }) =>
      `| ${[promise, how, figure].map(cell).join(' | ')} | ${faults.length} |`,
  );
  return `# What is promised, and how it is tested

Written by \`npm run harden -- ${size}\` (Node ${process.versions.node}, ${availableParallelism()} threads). The same seeds make the same texts and files;
\`npm run harden -- texts\` tries ${count(3 * SIZES.texts.cases)} texts of the first row, in about an hour: [its last figures](hardening-texts.md).

| promise | how it is tested | figure | faults |
|---|---|---|---|
${lines.join('\n')}
`;
}

const size = process.argv[2] ?? 'full';
if (!(size in SIZES)) {
  console.error('npm run harden -- short, full, or texts');
  process.exit(1);
}
buildNode(['core', 'server', 'fuzz'], true);
const folder = mkdtempSync(join(tmpdir(), 'schritt-harden-'));
const rows = [];
try {
  for (const [promise, how, work] of promises(size, folder).slice(0, size === 'texts' ? 1 : undefined)) {
    const { figure, faults } = await work();
    rows.push({ promise, how, figure, faults });
    console.log(`${promise}: ${figure}${faults.length === 0 ? '' : `; ${faults.length} FAULTS`}`);
    for (const fault of faults.slice(0, 10)) console.log('  ', fault.slice(0, 400));
  }
} finally {
  // a server that a failure left behind may still write for a moment
  rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 200 });
}
if (size !== 'short')
  writeFileSync(
    join(root, size === 'full' ? 'docs/hardening.md' : 'docs/hardening-texts.md'),
    table(rows, size),
  );
const held = rows.filter(({ faults }) => faults.length === 0).length;
console.log(`${held} of ${rows.length} held`);
process.exitCode = held === rows.length ? 0 : 1;
