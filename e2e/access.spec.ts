import { expect, type Page } from '@playwright/test';
import { violations } from './axe.ts';
import { choose, openStudy, rows } from './study-page.ts';
import { test } from './test.ts';

/** Pages as a person comes to them, each until it shows what it is for. */
const PAGES: readonly { readonly name: string; readonly open: (page: Page) => Promise<void> }[] = [
  {
    name: 'the list of studies',
    open: async (page) => {
      await page.goto('/studies');
      await expect(page.locator('.order-sketch polyline').first()).toBeVisible();
    },
  },
  {
    name: 'the bin',
    open: async (page) => {
      await page.goto('/problems');
      await page.getByRole('button', { name: 'Bin' }).click();
      await expect(page.getByRole('heading', { name: 'Deleted problems' })).toBeVisible();
    },
  },
  {
    name: 'the list of methods',
    open: async (page) => {
      await page.goto('/methods');
      await expect(page.getByRole('columnheader', { name: 'Family' })).toBeVisible();
    },
  },
  {
    name: 'a method',
    open: async (page) => {
      await page.goto('/methods');
      await page.getByRole('searchbox').fill('Kutta 3');
      await page.getByRole('link', { name: 'Kutta 3', exact: true }).click();
      await expect(page.getByRole('textbox', { name: 'the method', exact: true })).toBeVisible();
    },
  },
  {
    name: 'a problem',
    open: async (page) => {
      await page.goto('/problems');
      await page.getByRole('link', { name: /^Sluice/ }).click();
      await expect(page.getByRole('textbox', { name: 'the problem', exact: true })).toBeVisible();
    },
  },
  {
    name: 'a study',
    open: async (page) => {
      await openStudy(page, 'Marmots and lynx');
      await expect(rows(page)).toHaveCount(6);
    },
  },
  {
    name: 'a run',
    open: async (page) => {
      await openStudy(page, 'Sway of the gondola');
      await page.keyboard.press('2');
      await expect(page.getByRole('region', { name: 'Rows' }).locator('tbody tr').first()).toBeVisible();
    },
  },
  {
    name: 'a step, with an open text and the notation at hand',
    open: async (page) => {
      await openStudy(page, 'Sluice of the snow lake');
      await page.keyboard.press('3');
      await expect(page.getByRole('complementary', { name: 'Worked step' })).toBeVisible();
      await page.getByRole('button', { name: 'Edit Heun' }).click();
      await page.getByRole('button', { name: 'Notation' }).click();
      await expect(page.getByText('Notation by example')).toBeVisible();
    },
  },
  {
    name: 'marking',
    open: async (page) => {
      await page.goto('/marking');
      await page.getByLabel('Pasted rows').fill('n\tAnna\tBen\n0\t4\t4\n1\t3.65\t3.6\n2\t3.3157\t3.3');
      await choose(page, 'Study', 'Sluice of the snow lake');
      await page.getByLabel('Step size', { exact: true }).fill('0.5');
      await page.getByRole('button', { name: '2 students in 1 file' }).click();
      await page.getByRole('button', { name: 'Variants: none' }).click();
      await expect(page.getByRole('img', { name: /with the rows of/ })).toBeVisible();
    },
  },
  {
    name: 'the class view',
    open: async (page) => {
      await openStudy(page, 'Sluice of the snow lake');
      await page.keyboard.press('c');
      await expect(page.getByRole('group', { name: 'Panels' })).toBeVisible();
    },
  },
];

for (const colorScheme of ['light', 'dark'] as const)
  for (const { name, open } of PAGES)
    test(`axe finds nothing wrong with ${name}, ${colorScheme}`, async ({ page }) => {
      await page.emulateMedia({ colorScheme });
      await open(page);
      await expect.poll(() => violations(page)).toEqual([]);
    });
