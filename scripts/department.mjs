// A department's day: forty variants of a study, their files, a class that is marked, by two workers at a queue.
import { join } from 'node:path';
import { buildNode, install, root } from './fresh.mjs';
import { withWorkers } from './queue-programs.mjs';

install();
buildNode(['core', 'plot', 'server'], true);
const { LIBRARY } = await import(join(root, 'core/dist/notation.js'));
const { variantStudies } = await import(join(root, 'core/dist/marking.js'));

const TITLES = ['Euler', 'Heun', 'Midpoint', 'Kutta 3', 'RK4', 'Adams-Bashforth 2'];
const document = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice of the Almbach reservoir',
  problem: {
    title: 'Sluice',
    text: "level' = -c*sqrt(level)\nc = 0.35\nlevel(0) = 4\n0 <= t <= 8\nlevel(t) = (2 - c*t/2)^2",
  },
  methods: TITLES.map((title) => ({ title, text: LIBRARY.find((method) => method.title === title).text })),
  ladder: { counts: Array.from({ length: 12 }, (_, i) => 2 ** (9 + i)) },
};
const variants = { choices: 'c in 0.2, 0.205, ..., 0.395', sheets: 40, seed: 29 };
const files = [
  { what: 'rungs', as: 'csv' },
  { what: 'cost', as: 'csv' },
  { what: 'comparison', as: 'md' },
  { what: 'rows', as: 'csv', method: 'Heun', steps: '16' },
  { what: 'plot', as: 'pdf', plot: 'order' },
];

/** Rows of Heun's method as students hand them in; every fifth forgets the second slope. */
const texts = variantStudies(document, variants).map(({ variant }, i) => {
  const c = Number(variant[0].value);
  const f = (level) => -c * Math.sqrt(level);
  const rows = [4];
  for (let n = 0; n < 16; n += 1) {
    const k1 = f(rows[n]);
    const k2 = i % 5 === 4 ? k1 : f(rows[n] + k1 / 2);
    rows.push(rows[n] + (k1 + k2) / 4);
  }
  const text = ['n;level', ...rows.map((level, n) => `${n};${level.toFixed(6)}`)].join('\n');
  return { name: `student ${i + 1}, sheet ${i + 1}.csv`, text };
});

await withWorkers(2, async ({ job, api }) => {
  const runs = variants.sheets * TITLES.length * document.ladder.counts.length;
  const sheets = await job('/jobs/sheets', { document, variants, files });
  const archive = await (await api(`/jobs/${sheets.id}/file`)).arrayBuffer();
  console.log(
    `${variants.sheets} variants, ${runs} runs up to ${2 ** 20} steps, ${variants.sheets * (files.length + 1)} files: ` +
      `${sheets.seconds.toFixed(1)} s, an archive of ${(archive.byteLength / 1e6).toFixed(2)} MB`,
  );
  const marking = await job('/jobs/markings', {
    ...{ document, variants, method: 'Heun', steps: '16', layout: 'one per file', texts },
    rule: { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: 16 },
  });
  const marked = await (await api(`/jobs/${marking.id}/file`)).arrayBuffer();
  console.log(
    `${texts.length} students marked, each by the own sheet: ${marking.seconds.toFixed(1)} s, an archive of ${(marked.byteLength / 1e6).toFixed(2)} MB`,
  );
});
