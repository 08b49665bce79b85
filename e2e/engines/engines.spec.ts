import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { rolldown } from 'rolldown';
import { STUDIES, type StudyText } from './every-number.ts';
import { firefox } from './firefox.ts';
import { test } from '../test.ts';

const ROOT = join(import.meta.dirname, '../..');
const DEMO = join(ROOT, 'demo');
/** Room for the reports of all studies. */
const MAX_BUFFER = 2 ** 26;

const demo = readdirSync(DEMO)
  .map((file): { readonly kind: string } => JSON.parse(readFileSync(join(DEMO, file), 'utf8')))
  .filter(({ kind }) => kind === 'study');
/** The JSON text of all demo studies. */
const documents = JSON.stringify(demo);
let folder = '';
let code = '';
let inNode: readonly StudyText[] = [];

/** What a program of the machine prints that is given files of the folder. */
function printed(program: string, files: readonly string[]): readonly StudyText[] {
  return JSON.parse(execFileSync(program, files, { cwd: folder, encoding: 'utf8', maxBuffer: MAX_BUFFER }));
}

test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-engines-'));
  const bundle = await rolldown({
    input: join(import.meta.dirname, 'numbers-program.ts'),
    platform: 'browser',
    resolve: { conditionNames: ['@schritt/source', 'module', 'browser', 'default'] },
  });
  const { output } = await bundle.generate({ format: 'iife' });
  expect(output).toHaveLength(1);
  code = output[0].code;
  writeFileSync(join(folder, 'numbers.js'), code);
  writeFileSync(join(folder, 'documents.json'), documents);
  writeFileSync(join(folder, 'shell.js'), "print(everyStudy(readFile('documents.json')));\n");
  writeFileSync(
    join(folder, 'node.cjs'),
    `require('./numbers.js');
console.log(everyStudy(require('node:fs').readFileSync('documents.json', 'utf8')));
`,
  );
  inNode = printed(process.execPath, ['node.cjs']);
});

test.afterAll(() => rmSync(folder, { recursive: true }));

test('there are enough numbers to compare', () => {
  const numbers = inNode.flatMap(([, report]) => report.match(/-?\d+(\.\d+)?(e[-+]?\d+)?/g) ?? []);
  expect(inNode.length).toBe(demo.length + STUDIES.length);
  expect(numbers.length).toBeGreaterThan(20_521);
});

test('JavaScriptCore gives the numbers of V8', () => {
  expect(printed('jsc', ['numbers.js', 'shell.js'])).toEqual(inNode);
});

test('SpiderMonkey gives the numbers of V8', async () => {
  const browser = await firefox();
  try {
    const page = await browser.newPage();
    await page.evaluate(code);
    expect(JSON.parse(String(await page.evaluate(`everyStudy(${JSON.stringify(documents)})`)))).toEqual(
      inNode,
    );
  } finally {
    await browser.close();
  }
});

test('Chromium gives the numbers of Node', async ({ page }) => {
  await page.evaluate(code);
  expect(JSON.parse(await page.evaluate(`everyStudy(${JSON.stringify(documents)})`))).toEqual(inNode);
});
