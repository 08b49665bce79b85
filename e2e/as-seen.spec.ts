import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { utils, write } from '@e965/xlsx';
import { cells, choose, openStudy, rows, typeText } from './study-page.ts';
import { test } from './test.ts';

const SLUICE = 'Sluice of the snow lake';

test('step sizes that cannot be taken stay with the reason, also after the page was left; spaces, semicolons and lines separate', async ({
  page,
}) => {
  await openStudy(page, SLUICE);
  const before = await rows(page).count();
  await page.getByRole('button', { name: 'Edit the step sizes' }).click();
  await page.getByText('list of h', { exact: true }).click();
  const field = page.getByRole('textbox', { name: 'Step sizes' });
  await field.fill('0.1, -2');
  const why = page.getByRole('alert').filter({ hasText: '-2 must be a positive number' });
  await expect(why).toBeVisible();
  await expect(rows(page)).toHaveCount(before);
  await page.reload();
  await expect(why).toBeVisible();
  await expect(field).toHaveValue('0.1, -2');
  await field.fill('0.5 0.25;0.125\n1/16');
  await expect(why).toHaveCount(0);
  await expect(rows(page)).toHaveCount(4);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows(page)).toHaveCount(before);
});

test('blanks of a handout count n, and variants that repeat are reported', async ({ page }) => {
  await openStudy(page, SLUICE);
  await page.getByRole('button', { name: 'Export' }).click();
  await choose(page, 'What to export', 'Handout');
  await page.getByLabel('Blanks').fill('rows after 3');
  const preview = page.frameLocator('iframe[title=Preview]');
  const blank = (n: string): Promise<number> =>
    preview
      .locator('tbody tr')
      .filter({ has: page.locator('td,th').first().getByText(n, { exact: true }) })
      .first()
      .locator('td.blank')
      .count();
  await expect.poll(() => blank('3')).toBe(0);
  await expect.poll(() => blank('4')).toBeGreaterThan(0);
  await page.getByLabel('Individual parameters').fill('k in 0.2, 0.25');
  await page.getByLabel('variants').fill('5');
  await expect(
    page
      .getByRole('dialog')
      .getByText('There are 2 combinations of these values for 5 variants: some are alike.'),
  ).toBeVisible();
});

test('errors of the step table are those of the study; stages of all methods and all components stand side by side', async ({
  page,
}) => {
  await openStudy(page, 'Marmots and lynx');
  await choose(page, 'Error scale', 'relative');
  const level = page.getByRole('navigation', { name: 'Level' }).getByRole('button');
  await level.nth(1).click();
  const table = page.getByRole('region', { name: 'Rows', exact: true });
  await choose(page, 'Methods whose rows are shown', 'Midpoint, all stages');
  const heading = (name: string | RegExp): ReturnType<Page['getByRole']> =>
    table.getByRole('columnheader', { name }).first();
  // without an exact solution the errors are against a reference
  await expect(heading(/^relative error/)).toBeVisible();
  await choose(page, 'Methods whose rows are shown', 'all methods');
  await page.getByRole('checkbox', { name: 'stages' }).check();
  await choose(page, 'Component', 'all');
  const names = await table.getByRole('columnheader').allInnerTexts();
  for (const method of ['Euler', 'Midpoint', 'RK4']) expect(names.join(' ')).toContain(method);
  expect(names.filter((name) => /k2/.test(name)).length).toBeGreaterThan(2);
  await level.nth(0).click();
  await choose(page, 'Error scale', 'absolute');
});

test('the table of step sizes has the value at the end, to the digits that are chosen', async ({ page }) => {
  await openStudy(page, SLUICE);
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('checkbox', { name: 'value at the end' }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('columnheader', { name: 'level[N]' }).first()).toBeVisible();
  // Euler at h = 0.5, written out
  let level = 4;
  for (let n = 0; n < 16; n += 1) level -= 0.5 * 0.35 * Math.sqrt(level);
  const value = async (): Promise<string | undefined> => (await cells(rows(page).nth(2)))[2];
  await expect.poll(value).toBe(String(Number(level.toPrecision(10))));
  await choose(page, 'Digits of the values at the end', '4 digits');
  await expect.poll(value).toBe(String(Number(level.toPrecision(4))));
});

test('a solution is drawn as points, as a line, with components and step sizes together, and saved as seen', async ({
  page,
}) => {
  await openStudy(page, 'Marmots and lynx');
  await page.getByRole('tab', { name: 'Solution', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Solution', exact: true });
  const marks = async (): Promise<{ readonly paths: number; readonly words: string }> => {
    await panel.locator('canvas').hover();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      panel.getByRole('button', { name: 'SVG' }).click(),
    ]);
    const svg = await readFile(await file.path(), 'utf8');
    return { paths: svg.match(/<path/g)?.length ?? 0, words: svg.replaceAll('&#160;', ' ') };
  };
  await panel.getByText('line', { exact: true }).click();
  const line = await marks();
  await panel.getByText('points', { exact: true }).click();
  const points = await marks();
  // every grid point is a mark of its own
  expect(points.paths).toBeGreaterThan(2 * line.paths);
  await page.reload();
  await expect(panel.getByRole('radio', { name: 'points' })).toBeChecked();
});

test('a problem as in a textbook is understood, and what cannot be is answered with a button that writes it', async ({
  page,
}) => {
  await page.goto('/problems');
  await page.getByRole('button', { name: 'New problem' }).click();
  await typeText(page, 'the problem', "y' = [cos 2t + sin 3t] t ln t - |y|/ln 2\ny(1) = 2 on [1, 10]\n");
  const typeset = page.getByRole('region', { name: 'Typeset' });
  await expect(typeset.locator('.katex').first()).toBeVisible();
  await expect(page.locator('.cm-lint-marker-error, .cm-lintRange-error')).toHaveCount(0);
  await page.goto('/methods');
  await page.getByRole('button', { name: 'New method' }).click();
  await typeText(page, 'the method', "y[n+1] = y + h*f(t, y) + h^2/2*y''\n");
  await page.locator('.cm-lintRange-error').first().hover();
  await page.locator('.cm-diagnosticAction').first().click();
  await expect(page.getByRole('textbox', { name: 'the method', exact: true })).toContainText("f'(t, y)");
  await expect(page.locator('.cm-lintRange-error')).toHaveCount(0);
});

test('data is read from a spreadsheet file; a notebook and questions have names and contents of their kind', async ({
  page,
}) => {
  await openStudy(page, SLUICE);
  const book = utils.book_new();
  utils.book_append_sheet(
    book,
    utils.aoa_to_sheet([
      ['t', 'level (m)'],
      [0, 4],
      [2, 2.7],
      [4, 1.7],
    ]),
    'Gauge',
  );
  await page.getByRole('button', { name: 'Add data' }).click();
  await page.getByLabel('Data file').setInputFiles({
    name: 'gauge.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: write(book, { type: 'buffer', bookType: 'xlsx' }),
  });
  await expect(page.getByLabel('Data in columns')).toHaveValue('t\tlevel (m)\n0\t4\n2\t2.7\n4\t1.7');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText('3 data points')).toBeVisible();
  await page.getByRole('button', { name: 'Export' }).click();
  const download = async (): Promise<{ readonly name: string; readonly text: string }> => {
    const waits = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Download' }).click();
    const file = await waits;
    return { name: file.suggestedFilename(), text: await readFile(await file.path(), 'utf8') };
  };
  await choose(page, 'What to export', 'Notebook');
  await expect(page.getByRole('button', { name: 'Download' })).toBeEnabled();
  const notebook = await download();
  expect(notebook.name).toBe('Sluice-of-the-snow-lake-notebook.ipynb');
  expect(JSON.parse(notebook.text)).toMatchObject({ nbformat: 4 });
  await choose(page, 'What to export', 'Questions');
  await page.getByLabel('Individual parameters').fill('k in 0.2, 0.25, ..., 0.6');
  await page.getByLabel('variants').fill('4');
  await expect(page.getByRole('button', { name: 'Download' })).toBeEnabled();
  const questions = await download();
  expect(questions.name).toMatch(/\.xml$/);
  expect(questions.text.match(/<question type="numerical">/g)).toHaveLength(4);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
});

test('a link that opens on this computer only says so, and what to set', async ({ page }) => {
  await openStudy(page, SLUICE);
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  await page.getByRole('button', { name: 'Create link' }).click();
  await expect(page.getByRole('note')).toContainText('SCHRITT_HOST=0.0.0.0');
  await page.getByRole('button', { name: 'Stop sharing' }).click();
});
