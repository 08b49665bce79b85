import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { choose } from './study-page.ts';
import { test } from './test.ts';

const SLUICE = 'Sluice of the snow lake';

/** Heun's method for level' = -0.35 sqrt(level) from 4 by a loop of its own, with h = 0.25; mistakes by kind. */
function levels(kind: 'right' | 'late' | 'no h' | 'slip', k = 0.35): readonly number[] {
  const f = (y: number): number => -k * Math.sqrt(y);
  const rows = [4];
  for (let n = 0; n < 32; n += 1) {
    const y = rows[n]!;
    const k1 = f(y);
    const k2 = f(y + (kind === 'no h' ? 1 : kind === 'late' ? 0.125 : 0.25) * k1);
    rows.push(y + 0.125 * (k1 + k2) + (kind === 'slip' && n === 5 ? 0.04 : 0));
  }
  return rows;
}

/** A class of forty: 22 right, 9 with h/2 for h, 6 without h, 3 with one wrong step. */
const KINDS = Array.from({ length: 40 }, (_, i) =>
  i < 22 ? ('right' as const) : i < 31 ? ('late' as const) : i < 37 ? ('no h' as const) : ('slip' as const),
);

function table(columns: readonly (readonly number[])[], names: readonly string[]): string {
  return [
    ['n', ...names].join('\t'),
    ...columns[0]!.map((_, n) => [n, ...columns.map((own) => own[n]!.toFixed(5))].join('\t')),
  ].join('\n');
}

const CLASS = table(
  KINDS.map((kind) => levels(kind)),
  KINDS.map((_, i) => `Student ${i + 1}`),
);

async function openMarking(page: Page): Promise<void> {
  await page.goto('/marking');
  await expect(page.getByRole('heading', { name: 'Marking' })).toBeVisible();
}

/** The cells of a student in the list. */
function studentRow(page: Page, name: string): ReturnType<Page['locator']> {
  return page
    .getByRole('region', { name: 'Class' })
    .getByRole('row', { name: new RegExp(`^${name} [\\d.]`) });
}

test('forty pasted columns are marked and counted, one is looked at, and feedback is printed', async ({
  page,
}) => {
  await openMarking(page);
  await expect(page.getByText('Paste the rows of a student or of a class')).toBeVisible();
  await page.getByLabel('Pasted rows').fill(CLASS);
  await choose(page, 'Study', SLUICE);
  await choose(page, 'Method', 'Heun');
  await page.getByLabel('Step size', { exact: true }).fill('0.25');
  await expect(page.getByRole('heading', { name: '22 of 40 are right.' })).toBeVisible();
  const counts = page.getByRole('list', { name: 'Counts' }).getByRole('listitem');
  await expect(counts).toHaveText([
    '9 of 40: In line 2 of the method, h/2 is written for h: k2 = f(t + h, y + h/2*k1).',
    '6 of 40: In line 2 of the method, h is missing: k2 = f(t + h, y + k1).',
    '3 of 40: one wrong step; later steps are right from the student’s own rows.',
  ]);
  // a right student, and one with one wrong step: 5 rows right, 31 steps
  await expect(studentRow(page, 'Student 3')).toContainText('1032 of 3232 of 32');
  await expect(studentRow(page, 'Student 38')).toContainText('5.55 of 3231 of 326');

  await studentRow(page, 'Student 25').click();
  const student = page.getByRole('region', { name: 'Student', exact: true });
  await expect(student.getByRole('heading', { name: 'Student 25' })).toBeVisible();
  await expect(student.getByText('This mistake gives exactly these 33 rows')).toBeVisible();
  await expect(student.locator('code')).toHaveText(['k2 = f(t + h, y + h/2*k1)', 'k2 = f(t + h, y + h*k1)']);
  await expect(student.locator('.first-wrong')).toHaveText(/^10\.25/);
  await expect(student.getByRole('img', { name: /with the rows of Student 25/ })).toBeVisible();
  await expect(student.getByRole('button', { name: 'Student 25' })).toBeVisible();
  // rows are gone through by keys
  await studentRow(page, 'Student 25').press('ArrowDown');
  await expect(student.getByRole('heading', { name: 'Student 26' })).toBeVisible();

  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download CSV' }).click(),
  ]);
  const lines = (await readFile(await csv.path(), 'utf8')).trim().split(/\r?\n/);
  expect(lines).toHaveLength(41);
  expect(lines[38]).toMatch(/^Student 38,5\.5,10,5,31,32,wrong,6,/);

  await page.getByRole('button', { name: 'Feedback sheets' }).click();
  const sheets = page.frameLocator('iframe[title="Feedback"]').locator('section.sheet');
  await expect(sheets).toHaveCount(40);
  await expect(sheets.nth(24)).toContainText('This mistake gives exactly your numbers');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('dialog').getByRole('button', { name: 'Download' }).click(),
  ]);
  const paper = await page.context().newPage();
  await paper.setContent(await readFile(await file.path(), 'utf8'));
  const pdf = await paper.pdf({ preferCSSPageSize: true });
  // a page of paper for each of them
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(40);
  await paper.close();
});

test('the run is found by the rows, a column is corrected, and all of it is there after a reload', async ({
  page,
}) => {
  await openMarking(page);
  const two = table([levels('right'), levels('late')], ['mine', 'Ben']);
  await page.getByLabel('Pasted rows').fill(two);
  await page.getByRole('button', { name: 'Find by rows' }).click();
  await expect(
    page.getByRole('status').filter({ hasText: `${SLUICE}: Heun, h = 0.25: 32 of 64` }),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: '1 of 2 is right.' })).toBeVisible();
  await page.getByRole('button', { name: '2 students in 1 file' }).click();
  await choose(page, 'What mine holds', 'not marked');
  await expect(page.getByRole('heading', { name: '0 of 1 are right.' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: '0 of 1 are right.' })).toBeVisible();
  await expect(page.getByLabel('Pasted rows')).toHaveValue(two);
  await page.getByRole('button', { name: 'Remove all' }).click();
  await expect(page.getByText('Paste the rows of a student or of a class')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Pasted rows')).toHaveValue(two);
});

test('files of students are opened, each with its own sheet, and what cannot be read is named', async ({
  page,
}) => {
  await openMarking(page);
  const rows = (k: number): Buffer =>
    Buffer.from(
      levels('right', k)
        .map((y, n) => `${n};${y.toFixed(4).replace('.', ',')}`)
        .join('\n'),
    );
  await page.getByLabel('Files of students').setInputFiles([
    { name: 'Anna.csv', mimeType: 'text/csv', buffer: rows(0.3) },
    { name: 'Ben.csv', mimeType: 'text/csv', buffer: rows(0.4) },
    { name: 'broken.zip', mimeType: 'application/zip', buffer: Buffer.from('no archive') },
  ]);
  await expect(page.getByRole('alert').filter({ hasText: 'broken.zip is not an archive' })).toBeVisible();
  await choose(page, 'Study', SLUICE);
  await choose(page, 'Method', 'Heun');
  await page.getByLabel('Step size', { exact: true }).fill('1/4');
  await expect(page.getByRole('heading', { name: '0 of 2 are right.' })).toBeVisible();
  await page.getByRole('button', { name: 'Variants: none' }).click();
  await page.getByLabel('Individual parameters').fill('k in 0.3, 0.4');
  await page.getByLabel('variants').fill('2');
  await expect(page.getByRole('heading', { name: '2 of 2 are right.' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove Ben.csv' }).click();
  await expect(page.getByRole('heading', { name: '1 of 1 is right.' })).toBeVisible();
  // a step size that is none is marked with the reason
  await page.getByLabel('Step size', { exact: true }).fill('half');
  await expect(page.getByText('a step size may contain only numbers, pi and e')).toBeVisible();
});
