import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { cells, openStudy, rows } from './desk.ts';

test('the table and the program of a study are previewed, copied and saved', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openStudy(page, 'Sluice of the snow lake');
  const [h, steps] = await cells(rows(page).first());
  await page.getByRole('button', { name: 'Take away' }).click();
  const preview = page.getByLabel('Preview');
  await expect(preview).toContainText('h,N,Euler: error,Euler: ratio,Euler: order');
  await expect(preview).toContainText(`${h!},${steps!},`);
  const table = (await preview.innerText()).split('\n').map((line) => line.split(','));
  const [titles, ...lines] = table;
  const ofRk4 = lines.find((line) => line[1] === '16')![titles!.indexOf('RK4: error')];
  await page.getByText('LaTeX').click();
  await expect(preview).toContainText('\\toprule');
  await page.getByRole('checkbox', { name: 'to be put into a document' }).check();
  await expect(preview).not.toContainText('\\documentclass');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Copied' })).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toMatch(/^\\begin\{table\}/);

  await page.getByRole('combobox', { name: 'What to take away' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'Program of a run' }).click();
  await page.getByRole('combobox', { name: 'Method of the run' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'RK4' }).click();
  await expect(preview).toContainText('k4 = f(t + h, y + h*k3)');
  const waits = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const saved = await waits;
  expect(saved.suggestedFilename()).toBe('Sluice-of-the-snow-lake-program.py');
  // what is saved runs, and its errors are those of the table
  const file = await saved.path();
  const printed = execFileSync('python3', [file, '1', '0.5'], { encoding: 'utf8' }).trim().split('\n');
  const errors = printed.slice(1).map((line) => Number(line.split(',')[2]));
  expect(Math.abs(errors[1]! / Number(ofRk4) - 1)).toBeLessThan(1e-6);
  expect(await readFile(file, 'utf8')).toContain('Sluice of the snow lake: RK4');
});

test('what cannot be taken away says why', async ({ page }) => {
  await openStudy(page, 'Thermistor probe in the air');
  await page.getByRole('button', { name: 'Take away' }).click();
  await page.getByRole('combobox', { name: 'What to take away' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'Program of a run' }).click();
  await page.getByRole('combobox', { name: 'Method of the run' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'Backward Euler' }).click();
  await expect(page.getByRole('dialog').getByRole('status')).toContainText(
    'a program is made of explicit formulas',
  );
  await expect(page.getByRole('button', { name: 'Save as a file' })).toBeDisabled();
});
