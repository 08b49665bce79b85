import { expect, type Page } from '@playwright/test';
import { cells, openStudy, rows, saved } from './study-page.ts';
import { test } from './test.ts';

const chain = (count: number, line: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => line(i)).join('\n');

/** Texts that have taken the page away, or held it for a minute. */
const METHODS: readonly (readonly [name: string, text: string, shows: RegExp])[] = [
  ['a coefficient of 1e-7', 'y[n+1] = y + 1e-7*h*f(t, y)\n', /Order 0/],
  [
    'typed functions that multiply up',
    `d0(t, y) = t*y\n${chain(30, (i) => `d${i + 1}(t, y) = d${i}(t, y)*d${i}(t, y)`)}\ny[n+1] = y + h*d30(t, y)\n`,
    /has more than 4,000 operations/,
  ],
  ['a linearly implicit method', 'J = f_y(t, y)\nsolve k = f(t, y) + h*J*k\ny[n+1] = y + h*k\n', /Order 1/],
  [
    'functions without brackets',
    `y[n+1] = y + h*${'sin '.repeat(2000)}y\n`,
    /needs its argument in brackets/,
  ],
  [
    'a thousand evaluations',
    `y[n+1] = y + h*(${chain(400, (i) => `f(t + ${i}*h/7, y)`).replaceAll('\n', ' + ')})\n`,
    /more than 100 evaluations/,
  ],
];

/** Puts a text into the editor of a page, as one pastes it. */
async function paste(page: Page, label: string, text: string): Promise<void> {
  const editor = page.getByRole('textbox', { name: label, exact: true });
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
}

/** The longest time in ms for which the main thread of the page could not answer, until `stop`. */
async function watchThread(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    let last = performance.now();
    const watch = { longest: 0 };
    Object.assign(window, { watch });
    setInterval(() => {
      const now = performance.now();
      watch.longest = Math.max(watch.longest, now - last);
      last = now;
    }, 10);
  });
  return () => page.evaluate(() => Number(Reflect.get(Object(Reflect.get(window, 'watch')), 'longest')));
}

for (const [name, text, shows] of METHODS)
  test(`${name}: the editor stays, and the results are shown in its place`, async ({ page }) => {
    await page.goto('/methods');
    await page.getByRole('button', { name: 'New method' }).click();
    const stop = await watchThread(page);
    await paste(page, 'the method', text);
    await expect(page.getByText(shows).first()).toBeVisible();
    await saved(page);
    // well below the minute for which some of these stood still; what else the machine does may take most of it
    expect(await stop()).toBeLessThan(20_000);
    await page.reload();
    await expect(page.getByRole('textbox', { name: 'the method', exact: true })).toContainText(
      text.slice(0, 12),
    );
    await expect(page.getByText(shows).first()).toBeVisible();
  });

test('a study goes on with its other methods beside one that cannot be read', async ({ page }) => {
  await openStudy(page, 'Frost line in the soil');
  const before = await cells(rows(page).first());
  await page.getByRole('button', { name: 'Edit Euler' }).click();
  await paste(page, 'the method Euler', `y[n+1] = y + h*${'sin '.repeat(2000)}f(t, y)\n`);
  await expect(page.getByText(/needs its argument in brackets/).first()).toBeVisible();
  // the others are there as before, beside the last good Euler
  expect(await cells(rows(page).first())).toEqual(before);
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/needs its argument in brackets/)).toHaveCount(0);
  await saved(page);
});

test('a double click on Delete moves to the bin once, and Undo brings it back', async ({ page }) => {
  await page.goto('/problems');
  await page.getByRole('button', { name: 'New problem' }).click();
  const title = page.getByRole('textbox', { name: 'Title of the problem' });
  await title.fill('Deleted twice');
  await saved(page);
  await page.goto('/problems');
  const row = page.getByRole('group', { name: 'Deleted twice' });
  await row.getByRole('button', { name: 'Delete' }).dblclick();
  await expect(page.getByText('“Deleted twice” moved to the bin.').first()).toBeVisible();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(row).toHaveCount(1);
  await row.getByRole('link').click();
  await expect(title).toHaveValue('Deleted twice');
});

test('the standard stiff test equation has errors against a reference', async ({ page }) => {
  await page.goto('/studies');
  await page.getByRole('button', { name: 'New from text' }).click();
  await page
    .getByRole('textbox', { name: 'Text of the problem' })
    .fill("# Decay far beyond the smallest double\ny' = -1000*y\ny(0) = 1\n0 <= t <= 1");
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(rows(page).first()).toBeVisible();
  // Euler with 8 steps: (1 - 125)^8
  await expect(rows(page).first()).toContainText(/5\.59/);
});
