import { type APIRequestContext, expect } from '@playwright/test';
import type { Browser, Page } from 'puppeteer-core';
import * as chromium from '../study-page.ts';
import { firefox } from './firefox.ts';
import { test } from '../test.ts';

/** Rungs of the table of a study. */
const RUNGS = 'section[aria-label="Step sizes and errors"] tbody tr';
const TABLE = 'section[aria-label="Step sizes and errors"] table';
/** The ruler of step sizes. */
const RULER = '[role="slider"][aria-label="Step size"]';

let browser: Browser;
let page: Page;

test.beforeAll(async () => {
  browser = await firefox();
});

test.afterAll(() => browser.close());

test.beforeEach(async () => {
  page = await browser.newPage();
  page.setDefaultTimeout(30_000);
});

test.afterEach(() => page.close());

/** Opens a demo study from the list, as one does by hand. */
async function openStudy(baseURL: string | undefined, title: string): Promise<void> {
  await page.goto(`${baseURL!}/studies`);
  await page.locator('input[type="search"], [role="searchbox"]').fill(title);
  await page.locator(`::-p-xpath(//a[normalize-space()="${title}"])`).click();
  await page.waitForSelector(RUNGS);
}

/** The cells of all rungs as plain text. */
function cells(): Promise<readonly (readonly string[])[]> {
  return page.$$eval(RUNGS, (rows) =>
    rows.map((row) =>
      [...row.querySelectorAll('th, td')].map((cell) =>
        cell instanceof HTMLElement ? cell.innerText.replace(/\s+/g, '') : '',
      ),
    ),
  );
}

/** Presses a button by what is written on it, or by its label. */
function press(name: string): Promise<void> {
  return page.locator(`::-p-xpath(//button[normalize-space()="${name}" or @aria-label="${name}"])`).click();
}

/** Replaces the whole text of an open editor. */
async function typeText(label: string, text: string): Promise<void> {
  const editor = await page.waitForSelector(`[role="textbox"][aria-label="${label}"]`);
  await editor!.click();
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.press('Delete');
  await page.keyboard.type(text);
}

test('a study in Firefox has the table that it has in Chromium', async ({ page: other, baseURL }) => {
  const title = 'Sluice of the snow lake';
  await openStudy(baseURL, title);
  await chromium.openStudy(other, title);
  const there = await chromium.rows(other).all();
  expect(await cells()).toEqual(await Promise.all(there.map(chromium.cells)));
});

/** A copy of a study, which a test may change: the tests behind this one use the same store. */
async function copied(request: APIRequestContext, title: string, copy: string): Promise<void> {
  const list: { readonly entries: readonly { readonly id: string; readonly title: string }[] } = await (
    await request.get('/api/studies')
  ).json();
  const { id } = list.entries.find((entry) => entry.title === title)!;
  const { document }: { readonly document: object } = await (await request.get(`/api/studies/${id}`)).json();
  const made = await request.post('/api/studies', { data: { document: { ...document, title: copy } } });
  expect(made.status()).toBe(201);
}

test('a problem typed in Firefox is computed, with its errors at their places on the way', async ({
  baseURL,
  request,
}) => {
  await copied(request, 'Sluice of the snow lake', 'Typed in Firefox');
  await openStudy(baseURL, 'Typed in Firefox');
  await press('Edit the problem');
  await typeText('the problem', "level' = -k*level\nk = 0,5\nlevel(0) = 4\n0 <= t <= 8\n");
  await page.waitForSelector('::-p-xpath(//li[contains(., "2:5 use a decimal point")])');
  await typeText(
    'the problem',
    "level' = -k*level\nk = 0.5\nlevel(0) = 4\n0 <= t <= 8\nlevel(t) = 4*exp(-k*t)\n",
  );
  await press('Done');
  const euler = Math.abs(4 * 0.75 ** 16 - 4 * Math.exp(-4));
  await expect.poll(async () => Number((await cells())[2]![2])).toBeCloseTo(euler, 4);
});

test('the ruler is moved with keys and with the pointer', async ({ baseURL }) => {
  await openStudy(baseURL, 'Frost line in the soil');
  const ruler = await page.waitForSelector(RULER);
  const value = (): Promise<string | null> =>
    page.$eval(RULER, (element) => element.getAttribute('aria-valuetext'));
  await ruler!.evaluate((element) => element instanceof SVGElement && element.focus());
  await page.keyboard.press('ArrowRight');
  const pressed = await value();
  await page.keyboard.press('ArrowRight');
  await expect.poll(value).not.toBe(pressed);
  const box = await ruler!.boundingBox();
  const before = await value();
  await page.mouse.move(box!.x + box!.width * 0.2, box!.y + 50);
  await page.mouse.down();
  await page.mouse.move(box!.x + box!.width * 0.6, box!.y + 50, { steps: 5 });
  await page.mouse.up();
  await expect.poll(value).not.toBe(before);
});

test('an export in Firefox is previewed with the numbers of the table', async ({ baseURL }) => {
  await openStudy(baseURL, 'Sluice of the snow lake');
  const [h, steps] = (await cells())[0]!;
  await press('Export');
  const preview = await page.waitForSelector('[aria-label="Preview"]');
  await expect.poll(() => preview!.evaluate((element) => element.textContent)).toContain(`${h!},${steps!},`);
});

test('the head of a table keeps its column lines when rows move under it', async ({ baseURL }) => {
  await openStudy(baseURL, 'Sluice of the snow lake');
  await page.setViewport({ width: 1280, height: 640 });
  const scrollTo = (top: number): Promise<number> =>
    page.$eval(
      TABLE,
      (table, to) => {
        let box: Element | null = table.parentElement;
        while (box !== null && box.scrollHeight <= box.clientHeight) box = box.parentElement;
        box?.scrollTo({ top: to });
        return box?.scrollTop ?? 0;
      },
      top,
    );
  expect(await scrollTo(80)).toBe(80);
  const source = `data:image/png;base64,${await page.screenshot({ encoding: 'base64' })}`;
  // the colours of the line at the left of each method's columns, and of the ground beside it
  const colours = await page.$$eval(
    `${TABLE} thead th.method`,
    async (heads, from) => {
      const picture = new Image();
      picture.src = from;
      await picture.decode();
      const canvas = new OffscreenCanvas(picture.width, picture.height);
      const context = canvas.getContext('2d')!;
      context.drawImage(picture, 0, 0);
      return heads.map((cell) => {
        const { left, top, height } = cell.getBoundingClientRect();
        const at = (x: number): string =>
          [...context.getImageData(x, Math.round(top + height / 2), 1, 1).data].join();
        return { line: at(Math.round(left)), ground: at(Math.round(left) + 5) };
      });
    },
    source,
  );
  expect(colours).toHaveLength(3);
  for (const { line, ground } of colours) expect(line).not.toBe(ground);
});
