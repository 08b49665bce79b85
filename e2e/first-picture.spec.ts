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

/** A page whose server has the first picture of a study at hand. */
async function pictured(page: Page, title: string): Promise<string> {
  const address = await addressOf(page, title);
  const hasPicture = async (): Promise<boolean> =>
    (await (await page.request.get(address, { headers: { accept: 'text/html' } })).text()).includes('inert');
  await expect.poll(hasPicture).toBe(true);
  return address;
}

/** Files of fonts that were found only when styles were applied: text is laid out twice for them. */
async function fontsNotPreloaded(page: Page): Promise<unknown> {
  return page.evaluate(`performance
    .getEntriesByType('resource')
    .filter(({ name, initiatorType }) => name.endsWith('.woff2') && initiatorType !== 'link')
    .map(({ name }) => name)`);
}

test('the numbers of a study are in its page before any script, where they stay', async ({
  page,
  browser,
}) => {
  const address = await pictured(page, 'Sluice of the snow lake');
  const context = await browser.newContext({ colorScheme: 'dark', viewport: { width: 1280, height: 800 } });
  const fresh = await context.newPage();
  let release = (): void => undefined;
  const released = new Promise<void>((done) => (release = done));
  await fresh.route(/\/assets\/.*\.js$/, (route) => released.then(() => route.continue()));
  await fresh.goto(address, { waitUntil: 'commit' });
  await expect(rows(fresh)).toHaveCount(7);
  // its fonts are asked for with its styles, not after them, and are there before it is measured
  await fresh.evaluate('document.fonts.ready');
  expect(await fontsNotPreloaded(fresh)).toEqual([]);
  const still = await Promise.all((await rows(fresh).all()).map(cells));
  expect(still[2]?.slice(0, 5)).toEqual(['0.5', '16', '0.0651', '2.07', '1.05']);
  // a click may move the table sideways
  const place = async (): Promise<unknown> => ({ ...(await rows(fresh).nth(3).boundingBox()), x: null });
  const stillPlace = await place();
  const colors = (): Promise<readonly string[]> =>
    fresh
      .locator('.rung-table .mark *')
      .evaluateAll((marks) => marks.map((mark) => getComputedStyle(mark).stroke));
  const stillColors = await colors();
  // a click before the page answers waits for it
  const clicked = rows(fresh).nth(3).click();
  release();
  await clicked;
  await expect(fresh.getByRole('button', { name: 'h = 0.25', exact: true })).toBeVisible();
  await expect(fresh.locator('canvas')).toHaveCount(2);
  expect(await Promise.all((await rows(fresh).all()).map(cells))).toEqual(still);
  expect(await place()).toEqual(stillPlace);
  expect(await colors()).toEqual(stillColors);
  expect(new Set(stillColors).size).toBe(3);
  await context.close();
});

test('a page whose scripts cannot be fetched says so beside its picture', async ({ page, browser }) => {
  const address = await pictured(page, 'Sluice of the snow lake');
  const fresh = await browser.newPage();
  await fresh.route(/\/assets\/main-[\w-]+\.js$/, (route) => route.abort());
  await fresh.goto(address);
  await expect(fresh.getByRole('alert')).toHaveText(
    'This page could not be fetched from the server. Reload it.',
  );
  await expect(rows(fresh)).toHaveCount(7);
  await fresh.goto('/studies');
  await expect(fresh.getByRole('alert')).toBeVisible();
  await fresh.close();
});

test('a picture is never replaced by a page that is still loading', async ({ page, browser }) => {
  const address = await pictured(page, 'Sluice of the snow lake');
  const fresh = await browser.newPage();
  await fresh.addInitScript(`new MutationObserver(() => {
    const hasRows = document.querySelector('tbody tr') !== null;
    if (window.hadRows === true && !hasRows) window.hasLost = true;
    window.hadRows ||= hasRows;
  }).observe(document, { childList: true, subtree: true })`);
  // what the page asks for comes late
  await fresh.route('**/api/studies/*', async (route) => {
    await new Promise((done) => setTimeout(done, 700));
    await route.continue();
  });
  await fresh.goto(address);
  await expect(fresh.locator('canvas')).toHaveCount(2);
  expect(await fresh.evaluate('[window.hadRows, window.hasLost]')).toEqual([true, undefined]);
  await fresh.close();
});

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
