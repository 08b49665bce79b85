import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { cells, choose, openStudy, rows } from './study-page.ts';
import { test } from './test.ts';

test('the table and the program of a study are previewed, copied and saved', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openStudy(page, 'Sluice of the snow lake');
  const [h, steps] = await cells(rows(page).first());
  await page.getByRole('button', { name: 'Export' }).click();
  const preview = page.getByLabel('Preview');
  await expect(preview).toContainText('h,N,Euler: error,Euler: ratio,Euler: order');
  await expect(preview).toContainText(`${h!},${steps!},`);
  const table = (await preview.innerText()).split('\n').map((line) => line.split(','));
  const [titles, ...lines] = table;
  const ofRk4 = lines.find((line) => line[1] === '16')![titles!.indexOf('RK4: error')];
  await page.getByText('LaTeX').click();
  await expect(preview).toContainText('\\toprule');
  await page.getByRole('checkbox', { name: 'fragment only' }).check();
  await expect(preview).not.toContainText('\\documentclass');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Copied' })).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toMatch(/^\\begin\{table\}/);

  await choose(page, 'What to export', 'Code');
  await choose(page, 'Method of the run', 'RK4');
  await expect(preview).toContainText('k4 = f(t + h, y + h*k3)');
  const waits = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download' }).click();
  const saved = await waits;
  expect(saved.suggestedFilename()).toBe('Sluice-of-the-snow-lake-program.py');
  // what is saved runs, and its errors are those of the table
  const file = await saved.path();
  const printed = execFileSync('python3', [file, '1', '0.5'], { encoding: 'utf8' }).trim().split('\n');
  const errors = printed.slice(1).map((line) => Number(line.split(',')[2]));
  expect(Math.abs(errors[1]! / Number(ofRk4) - 1)).toBeLessThan(1e-6);
  expect(await readFile(file, 'utf8')).toContain('Sluice of the snow lake: RK4');
});

test('an export begins with the columns that the table on the page has', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  await page.getByText('No exact solution').click();
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('checkbox', { name: 'value at the end' }).check();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Export' }).click();
  await expect(page.getByLabel('Preview')).toContainText(
    'h,N,Euler: level,Euler: order of three,Euler: extrapolated level,Euler: estimated error,Heun: level',
  );
});

test('an implicit method is a live spreadsheet', async ({ page }) => {
  await openStudy(page, 'Thermistor probe in the air');
  await takeAway(page, 'Live spreadsheet');
  await choose(page, 'Method of the run', 'Backward Euler');
  const { bytes } = await saved(page);
  expect(bytes.subarray(0, 2).toString()).toBe('PK');
});

test('what cannot be exported says why', async ({ page }) => {
  await openStudy(page, 'Soil temperature in layers');
  await page.getByRole('button', { name: 'Export' }).click();
  await choose(page, 'What to export', 'Live spreadsheet');
  await expect(page.getByRole('dialog').getByRole('status')).toContainText(
    'a live spreadsheet has at most 50 components, and this problem has 200',
  );
  await expect(page.getByRole('button', { name: 'Download' })).toBeDisabled();
});

/** Opens the place with a kind chosen. */
async function takeAway(page: Page, what: string): Promise<void> {
  await page.getByRole('button', { name: 'Export' }).click();
  await choose(page, 'What to export', what);
}

async function saved(page: Page): Promise<{ readonly name: string; readonly bytes: Buffer }> {
  const waits = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download' }).click();
  const file = await waits;
  return { name: file.suggestedFilename(), bytes: await readFile(await file.path()) };
}

test('a sheet that calculates, a plot and a handout with its solution are saved', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  await takeAway(page, 'Live spreadsheet');
  await expect(page.getByLabel('Preview')).toContainText('=IF($A5="","",(C4 + h_1*(-k*');
  const sheet = await saved(page);
  expect(sheet.name).toBe('Sluice-of-the-snow-lake-sheet.xlsx');
  expect(sheet.bytes.subarray(0, 2).toString()).toBe('PK');

  await choose(page, 'What to export', 'Plot');
  await page.getByText('Paper', { exact: true }).click();
  await page.getByText('Black and white').click();
  await page.getByRole('dialog').getByText('PNG', { exact: true }).click();
  await expect(page.getByRole('img', { name: 'Preview' })).toBeVisible();
  const plot = await saved(page);
  expect(plot.bytes.subarray(1, 4).toString()).toBe('PNG');
  // 85 mm at 96 points an inch, twice as large
  expect(plot.bytes.readUInt32BE(16)).toBe(642);

  await choose(page, 'What to export', 'Handout');
  await page.getByLabel('Instructions').fill('Work out the lake by hand.');
  await page.getByLabel('Individual parameters').fill('k in 0.2, 0.25, ..., 0.35');
  await page.getByLabel('variants').fill('3');
  const preview = page.frameLocator('iframe[title=Preview]');
  await expect(preview.getByRole('heading', { name: /sheet 3/ })).toBeVisible();
  await expect(preview.getByText('Work out the lake by hand.').first()).toBeVisible();
  await expect(preview.locator('.answer')).toHaveCount(0);
  const blanks = await preview.locator('td.blank').count();
  await page.getByRole('dialog').getByText('Answer key', { exact: true }).click();
  await expect(preview.locator('td.blank')).toHaveCount(0);
  await expect(preview.locator('td.answer')).toHaveCount(blanks);
  await expect(preview.getByRole('heading', { name: 'All keys' })).toBeVisible();
  const solution = await saved(page);
  expect(solution.name).toBe('Sluice-of-the-snow-lake-handout-solution.html');
  expect(solution.bytes.toString()).toContain('<math');
  // what cannot be read says what to write
  await page.getByLabel('Blanks').fill('everything');
  await expect(page.getByRole('dialog').getByRole('status')).toContainText('write columns k1, k2');
});

test('a study is made of a pasted text, and measured points are drawn beside its solution', async ({
  page,
}) => {
  await page.goto('/studies');
  await page.getByRole('button', { name: 'New from text' }).click();
  const text = page.getByLabel('Text of the problem');
  await text.fill("# Ice on the lake\nice' = 1.5/ice\nice(0) = 2");
  await expect(page.getByRole('dialog')).toContainText('the interval is missing');
  await text.fill("# Ice on the lake\nice' = 1.5/ice\nice(0) = 2\n0 <= t <= 4");
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(rows(page).first()).toBeVisible();
  await expect(page).toHaveTitle(/Ice on the lake/);
  await page.getByRole('button', { name: 'Add data' }).click();
  const points = page.getByLabel('Data in columns');
  await points.fill('t;ice\n0;2\n1;x');
  await expect(page.getByText('line 3, column 3: x is not a number')).toBeVisible();
  await points.fill('t;ice\n0;2\n1;2,6\n3;3,7');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText('3 data points')).toBeVisible();
  await expect(page.getByRole('button', { name: 'measured', exact: true })).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByText('3 data points')).toBeVisible();
});
