// Tries to break Schritt: random texts and files, requests made to hold it up, kills, many readers, a full disk, a
// greedy job. `full` measures on a quiet machine; `short`, beside everything else, watches that nothing breaks or hangs. Prints a table; ends with 1 where anything does not hold. `full` takes about half an hour, `short` a minute.
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fork } from 'node:child_process';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildNode, root } from './fresh.mjs';
import { fullDisk } from './harden/full-disk.mjs';
import { fuzzDocuments } from './harden/fuzz-documents.mjs';
import { fuzzTexts } from './harden/fuzz-texts.mjs';
import { killServer } from './harden/kills.mjs';
import { greedyJob } from './harden/memory.mjs';
import { nastyRequests } from './harden/nasty.mjs';
import { manyReaders } from './harden/readers.mjs';

const SIZES = {
  short: { texts: 20_000, documents: 10_000, kills: 4, readers: 200, seconds: 3, patience: 20 },
  full: { texts: 1_000_000, documents: 100_000, kills: 60, readers: 500, seconds: 10, patience: 1 },
};
/** Processes that read random texts; one processor is left free. */
const PROCESSES = Math.max(1, availableParallelism() - 1);
/** Of so many texts that can be read one is also checked, typeset, compiled and run. */
const EVERY = 20;

async function loadCore() {
  const entries = await Promise.all(
    ['notation', 'study', 'document'].map((name) => import(join(root, `core/dist/${name}.js`))),
  );
  return Object.assign({}, ...entries);
}

/** Set in the processes that read random texts: what each of them is to read. */
const PART = 'SCHRITT_HARDEN_TEXTS';

/** Random texts in processes of their own, so that the processor time of each can be told; each with its own seed. */
async function texts(count, seed, patience) {
  const parts = await Promise.all(
    Array.from({ length: PROCESSES }, (_, i) => {
      const part = { count: Math.ceil(count / PROCESSES), seed: seed + i, patience };
      const child = fork(fileURLToPath(import.meta.url), {
        env: { ...process.env, [PART]: JSON.stringify(part) },
      });
      return new Promise((done, fail) => {
        child.on('message', done).on('error', fail);
        child.on('exit', (code) => fail(new Error(`a reader of texts ended with ${code}`)));
      });
    }),
  );
  const most = (of) => Math.max(...parts.map(of));
  return {
    good: parts.reduce((sum, { good }) => sum + good, 0),
    worst: {
      read: most(({ worst }) => worst.read),
      work: most(({ worst }) => worst.work),
      wall: most(({ worst }) => worst.wall),
    },
    faults: parts.flatMap(({ faults }) => faults),
  };
}

const ms = (x) => `${x.toFixed(x < 10 ? 1 : 0)} ms`;
const count = (n) => n.toLocaleString('en-US');

async function everything(size) {
  const { texts: many, documents, kills, readers, seconds, patience } = SIZES[size];
  const core = await loadCore();
  const folder = mkdtempSync(join(tmpdir(), 'schritt-harden-'));
  const rows = [];
  const row = (what, came, faults) => {
    rows.push({ what, came, faults: faults.length });
    console.log(`${what}: ${came}${faults.length === 0 ? '' : `; ${faults.length} FAULTS`}`);
    for (const fault of faults.slice(0, 5))
      console.log(
        '  ',
        fault.what ?? fault,
        fault.text === undefined ? '' : JSON.stringify(fault.text).slice(0, 400),
      );
  };
  try {
    const read = await texts(many, 1, patience);
    row(
      `${count(many)} random texts of problems and methods, seeds 1 to ${PROCESSES}`,
      `${count(read.good)} could be read; longest reading ${ms(read.worst.read)} of processor time (at most 50 in the median of three, once 1,000 texts were read; by the clock, with what else the machine did, once ${ms(read.worst.wall)}), longest check, setting or compiling of one in ${EVERY} ${ms(read.worst.work)}`,
      read.faults,
    );
    const files = readdirSync(join(root, 'demo')).filter((name) => name.endsWith('.schritt.json'));
    const demo = files.map((name) => JSON.parse(readFileSync(join(root, 'demo', name), 'utf8')));
    const docs = fuzzDocuments(core, demo, documents, 7, patience);
    row(
      `${count(documents)} random files, seed 7`,
      `${count(docs.good)} were documents; longest reading and opening ${ms(docs.worst)}`,
      docs.faults,
    );
    const nasty = await nastyRequests(join(folder, 'nasty'), patience);
    row(
      `${nasty.cases} requests made to hold up the server`,
      `slowest answer ${ms(nasty.slowest.took)} (${nasty.slowest.what}); health meanwhile within ${ms(nasty.slowest.health)} for 99 in 100, at most ${ms(nasty.slowest.healthMost)}`,
      [...nasty.faults, ...(nasty.slowest.health < 50 * patience ? [] : ['health took more than 50 ms'])],
    );
    const killed = await killServer(join(folder, 'kills'), kills, 3);
    row(
      `${kills} times killed while four writers save, seed 3`,
      `${count(killed.saves)} acknowledged saves, ${killed.lost} lost; longest start ${ms(killed.slowest)}`,
      killed.lost === 0 ? [] : [`${killed.lost} acknowledged saves are lost`],
    );
    const crowd = await manyReaders(join(folder, 'readers'), readers, seconds);
    row(
      `${readers} readers for ${seconds} s on a list of 100 studies`,
      `${count(crowd.asked)} answers, median ${ms(crowd.median)}, 99 in 100 within ${ms(crowd.p99)}, ${crowd.errors} errors`,
      [
        ...(crowd.errors === 0 ? [] : [`${crowd.errors} errors`]),
        ...(crowd.p99 < 200 * patience ? [] : ['more than 200 ms for one in a hundred']),
      ],
    );
    const greedy = await greedyJob(join(folder, 'greedy'));
    row(
      'a job of 24 methods x 40 rungs x 20,000 components',
      `${greedy.state}: ${greedy.why}; the server holds at most ${greedy.megabytes.toFixed(0)} MB, the store ${greedy.database.toFixed(1)} MB; health within ${ms(greedy.health)}`,
      greedy.goesOn && greedy.state === 'failed'
        ? []
        : ['the next job is not taken, or this one was not refused'],
    );
    const disk = await fullDisk(join(folder, 'disk'));
    row(
      'a disk of 6 MB that becomes full',
      disk.tried
        ? `after ${disk.stored} saves answered ${disk.refused?.status}, "${disk.refused?.message}"; with room again it goes on`
        : 'not tried: no right to mount a small disk here',
      disk.tried ? disk.faults : [],
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  return rows;
}

function table(rows, size) {
  const cell = (text) => text.replaceAll('|', '\\|');
  const lines = rows.map(({ what, came, faults }) => `| ${cell(what)} | ${cell(came)} | ${faults} |`);
  return `# What it withstands

Written by \`npm run harden -- ${size}\` (Node ${process.versions.node}, ${availableParallelism()} threads). Seeds make every text and file the same again.

| tried | came to | faults |
|---|---|---|
${lines.join('\n')}
`;
}

if (process.env[PART] !== undefined) {
  const { count: many, seed, patience } = JSON.parse(process.env[PART]);
  process.send(fuzzTexts(await loadCore(), many, seed, EVERY, patience), () => process.exit(0));
} else {
  const size = process.argv[2] ?? 'full';
  if (!(size in SIZES)) {
    console.error('npm run harden -- short, or full');
    process.exit(1);
  }
  buildNode(['core', 'server'], true);
  const rows = await everything(size);
  if (size === 'full') writeFileSync(join(root, 'docs/hardening.md'), table(rows, size));
  const faults = rows.reduce((sum, row) => sum + row.faults, 0);
  console.log(`${rows.length - rows.filter((r) => r.faults > 0).length} of ${rows.length} held`);
  process.exitCode = faults === 0 ? 0 : 1;
}
