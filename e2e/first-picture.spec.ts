import { expect, type Page, type Route } from '@playwright/test';
import { cells, openStudy, rows } from './study-page.ts';
import { test } from './test.ts';

/** The file of what is beside the numbers of a study. */
const PARTS = /\/assets\/study-parts-[\w-]+\.js$/;

/** The address of a demo study, without the page that it was found with. */
async function addressOf(page: Page, title: string): Promise<string> {
  await openStudy(page, title);
  const address = page.url();
  await page.goto('about:blank');
  return address;
}

test('numbers are there before the components, which come to their places', async ({ page, browser }) => {
  const address = await addressOf(page, 'Sluice of the snow lake');
  const fresh = await browser.newPage();
  const held: Route[] = [];
  await fresh.route(PARTS, (route) => void held.push(route));
  await fresh.goto(address);
  await expect(rows(fresh)).toHaveCount(7);
  expect((await cells(rows(fresh).nth(2))).slice(0, 5)).toEqual(['0.5', '16', '0.0651', '2.07', '1.05']);
  await expect(fresh.getByRole('heading', { name: 'Sluice of the snow lake' })).toBeVisible();
  await expect(fresh.getByRole('slider', { name: 'Step size' })).toBeVisible();
  await expect(fresh.getByRole('button', { name: 'Export' })).toHaveCount(0);
  // a row is chosen before there is anything beside the table
  await rows(fresh).nth(3).click();
  const table = await rows(fresh).first().boundingBox();
  await expect.poll(() => held.length).toBe(1);
  for (const route of held) await route.continue();
  await expect(fresh.getByRole('button', { name: 'h = 0.25', exact: true })).toBeVisible();
  await expect(fresh.getByRole('button', { name: 'Export' })).toBeVisible();
  await expect(fresh.locator('canvas')).toHaveCount(2);
  expect(await rows(fresh).first().boundingBox()).toEqual(table);
  await fresh.close();
});

test('numbers stay where the components cannot be fetched, and every place says so', async ({
  page,
  browser,
}) => {
  const address = await addressOf(page, 'Sluice of the snow lake');
  const fresh = await browser.newPage();
  await fresh.route(PARTS, (route) => route.abort());
  await fresh.goto(address);
  const sentence = 'cannot be shown: it could not be fetched from the server; reload the page.';
  await expect(fresh.getByRole('alert').filter({ hasText: `The main plot ${sentence}` })).toBeVisible();
  await expect(fresh.getByRole('alert').filter({ hasText: `The panel ${sentence}` })).toBeVisible();
  await expect(rows(fresh)).toHaveCount(7);
  await fresh.unrouteAll();
  await fresh.reload();
  await expect(fresh.getByRole('button', { name: 'Export' })).toBeVisible();
  await fresh.close();
});
