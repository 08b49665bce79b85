import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { cells, choose, openStudy, rows } from './study-page.ts';
import { test } from './test.ts';

test('a pocket calculator: errors grow with smaller steps, and a step shows each rounded operation', async ({
  page,
}) => {
  await openStudy(page, 'Frost line by pocket calculator');
  await expect(page.getByText('4 digits, chopped').first()).toBeVisible();
  // the table grows as the runs end
  await expect(rows(page)).toHaveCount(8);
  const finest = await cells(rows(page).last());
  // h, N, then error, ratio and order of each method
  expect(Number(finest[2]?.replace('×10−', 'e-'))).toBeGreaterThan(0.01);
  await page.goto(`${page.url().split('?')[0]}?depth=step&N=12&n=3&method=0`);
  const worked = page.getByRole('complementary', { name: 'Worked step' });
  // the numbers that a calculator with four digits shows one after the other
  await expect(worked).toContainText('0.2496');
  await expect(worked).toContainText('2.003+0.2358=2.239');
});

test('the arithmetic of one method is changed to 20 digits, its values follow, and undo takes it back', async ({
  page,
}) => {
  await openStudy(page, 'Frost line by pocket calculator');
  await page.getByRole('button', { name: 'Edit Heun, 6 digits' }).click();
  const digits = page.getByLabel('Arithmetic of Heun, 6 digits: significant digits');
  await expect(digits).toHaveValue('6');
  await digits.fill('20');
  await digits.press('Enter');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText(/^20 digits · /).first()).toBeVisible();
  await expect.poll(async () => (await cells(rows(page).last()))[8]).toContain('4.13×10−9');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/^6 digits · /).first()).toBeVisible();
});

test('order 8 goes on beyond double precision, with all digits in rows and in a program', async ({
  page,
}) => {
  await openStudy(page, 'Order 8 beyond double precision');
  await expect(page.getByText(/Order 8\.00 .*, as expected/)).toBeVisible();
  const finest = await cells(rows(page).last());
  expect(finest.some((cell) => cell.includes('×10−24'))).toBe(true);
  await page.goto(`${page.url().split('?')[0]}?depth=run&N=12&method=3`);
  await choose(page, 'How numbers are rounded', 'all digits');
  await expect(page.getByText(/^1\.41421356832606\d{18,}$/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Export' }).click();
  await choose(page, 'What to export', 'Code');
  await choose(page, 'Method of the run', 'RK8, 34 digits');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download' }).click(),
  ]);
  expect(readFileSync(await download.path(), 'utf8')).toContain('getcontext().prec = 34');
});
