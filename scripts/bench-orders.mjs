// How often the true order lies in the range that is estimated from the errors, and how often that is printed, over 1,000 random smooth studies with a fixed seed.
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './fresh.mjs';

const SEED = 2026;
const STUDIES = 1000;

const KINDS = [
  ['one step', (text) => !/start with|solve|f'/.test(text) && !/\b[xv]\[n\+1\]/.test(text)],
  ['several steps', (text) => /start with/.test(text) && !/solve/.test(text)],
  ['implicit', (text) => /solve/.test(text)],
  ['Taylor', (text) => /f'/.test(text)],
  ['for x and v', (text) => /\b[xv]\[n\+1\]/.test(text)],
];

/** What makes random studies and judges them: code of tests, which is no part of the built core. */
async function tools() {
  const { build } = await import('vite');
  const outDir = mkdtempSync(join(root, 'core/trust-'));
  try {
    await build({
      root: join(root, 'core'),
      configFile: false,
      logLevel: 'error',
      build: { ssr: 'trust/bench-tools.ts', outDir, emptyOutDir: true },
    });
    return await import(join(outDir, 'bench-tools.js'));
  } finally {
    rmSync(outDir, { recursive: true });
  }
}

/** A table: kind of method, studies, estimated, held, printed, median and 90 % of the widths. */
export async function benchOrders() {
  const { randomFrom, randomStudy, coverage, openStudy, runStudy } = await tools();
  const random = randomFrom(SEED);
  const seen = [];
  while (seen.length < STUDIES) {
    const document = randomStudy(random);
    const opened = openStudy(document);
    if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
    for (const one of coverage(runStudy(opened.study))) seen.push({ ...one, text: document.methods[0].text });
  }
  const rows = [...KINDS, ['all', () => true]].map(([kind, is]) => {
    const own = seen.filter(({ text }) => is(text));
    const stated = own.filter(({ range }) => range !== null);
    const held = stated.filter(({ range, truth }) => range.low <= truth && truth <= range.high);
    const widths = stated.map(({ range }) => range.high - range.low).sort((a, b) => a - b);
    return {
      kind,
      studies: own.length,
      stated: stated.length,
      held: held.length,
      printed: own.filter(({ isPrinted }) => isPrinted).length,
      share: held.length / stated.length,
      median: widths[widths.length >> 1],
      ninety: widths[Math.floor(widths.length * 0.9)],
    };
  });
  for (const { kind, studies, stated, held, share, printed, median, ninety } of rows)
    console.log(
      `| ${kind} | ${studies} | ${stated} | ${held} | ${(100 * share).toFixed(1)} % | ${printed} | ${median.toFixed(3)} | ${ninety.toFixed(3)} |`,
    );
  return rows;
}
