// Over 1,000 random smooth studies and 1,000 hard ones, with a fixed seed: how often the true order lies in the range that is
// estimated from the errors and how often that is printed; how often a printed range is right, those apart that exclude the
// expected order; and how many sentences are false.
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

/** Tables: ranges by kind of method, and printed ones by class of study; and how many sentences are false. */
export async function benchOrders() {
  const { randomFrom, randomStudy, hardStudy, ALL_HARDSHIPS, ...judging } = await tools();
  const { coverage, printedRanges, falseClaims, misprint, openStudy, runStudy } = judging;
  const [seen, printed] = [[], new Map()];
  let [findings, wrong] = [0, 0];
  const judge = (document, kind) => {
    const opened = openStudy(document);
    if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
    const result = runStudy(opened.study);
    findings += result.findings.length;
    const untrue = [
      ...falseClaims(opened.study, result),
      ...result.findings.flatMap((one) => misprint(one) ?? []),
    ];
    for (const sentence of untrue) console.log(sentence);
    wrong += untrue.length;
    printed.set(kind, [...(printed.get(kind) ?? []), ...printedRanges(opened.study, result)]);
    return result;
  };
  const random = randomFrom(SEED);
  while (seen.length < STUDIES) {
    const document = randomStudy(random);
    for (const one of coverage(judge(document, 'smooth')))
      seen.push({ ...one, text: document.methods[0].text });
  }
  for (let i = 0; i < STUDIES; i += 1) {
    const { document, hard } = hardStudy(random, ALL_HARDSHIPS[i % ALL_HARDSHIPS.length]);
    judge(document, hard);
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
  for (const { kind, studies, stated, held, share, printed: shown, median, ninety } of rows)
    console.log(
      `| ${kind} | ${studies} | ${stated} | ${held} | ${(100 * share).toFixed(1)} % | ${shown} | ${median.toFixed(3)} | ${ninety.toFixed(3)} |`,
    );
  const counted = (list) => `${list.length} | ${list.filter(({ isRight }) => isRight).length}`;
  const classes = [...printed].map(([kind, list]) => ({
    kind,
    holding: counted(list.filter(({ excludes }) => !excludes)),
    excluding: counted(list.filter(({ excludes }) => excludes)),
  }));
  for (const { kind, holding, excluding } of classes) console.log(`| ${kind} | ${holding} | ${excluding} |`);
  console.log(`${wrong} of ${findings} sentences are false`);
  return { rows, classes, findings, wrong };
}
