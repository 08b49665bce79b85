import { expect } from '@playwright/test';
import { cells, openStudy, rows, saved } from './study-page.ts';
import { test } from './test.ts';

test('sliders move the whole page and leave the text unchanged, until they write to it', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  const first = async (): Promise<string> => (await cells(rows(page).first()))[2] ?? '';
  const before = await first();
  await page.getByRole('button', { name: 'Sliders for k' }).click();
  await page.getByRole('slider', { name: 'k' }).focus();
  for (let i = 0; i < 20; i += 1) await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('slider', { name: 'k' })).toHaveAttribute('aria-valuenow', /^0\.4(2|1999)/);
  // Euler's method with k = 0.42 in four steps of 2, against the exact level
  let level = 4;
  for (let n = 0; n < 4; n += 1) level -= 2 * 0.42 * Math.sqrt(level);
  const moved = Math.abs(level - (2 - 0.42 * 4) ** 2).toPrecision(3);
  await expect.poll(first).toBe(moved);
  await page.getByRole('button', { name: 'Reset' }).click();
  await expect.poll(first).toBe(before);
  await page.getByRole('slider', { name: 'k' }).focus();
  for (let i = 0; i < 20; i += 1) await page.keyboard.press('ArrowRight');
  await expect.poll(first).toBe(moved);
  await page.getByRole('button', { name: 'Write to text' }).click();
  await expect(page.getByRole('button', { name: 'Reset' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Edit the problem' }).click();
  await expect(page.getByRole('textbox', { name: 'the problem', exact: true })).toContainText('k = 0.42');
  await expect.poll(first).toBe(moved);
  await page.getByRole('textbox', { name: 'Title of the study' }).focus();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(first).toBe(before);
  await saved(page);
});

test('a click on a typeset formula opens its text at that place; an example of the notation goes in there', async ({
  page,
}) => {
  await openStudy(page, 'Frost line in the soil');
  const method = page.getByRole('region', { name: 'Method Midpoint' });
  await method.locator('.formula').nth(1).click();
  const editor = page.getByRole('textbox', { name: 'the method Midpoint' });
  await expect(editor).toBeFocused();
  const line = (): Promise<string> =>
    page.evaluate(
      () => document.getSelection()?.anchorNode?.parentElement?.closest('.cm-line')?.textContent ?? 'nowhere',
    );
  await expect.poll(line).toContain('k2 = ');
  await page.keyboard.press('F1');
  await page.getByRole('searchbox', { name: 'Search the notation' }).fill('constant');
  await page.getByRole('button', { name: 'theta = 1/2' }).click();
  await expect(editor).toContainText('theta = 1/2');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
});

test('the class view by keys alone: panels, depth, step; the link brings it back', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  await page.keyboard.press('c');
  const panels = page.getByRole('group', { name: 'Panels' });
  await expect(panels).toBeVisible();
  await expect(page.getByRole('region', { name: 'Step sizes and errors' })).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByRole('region', { name: 'Step sizes and errors' })).toHaveCount(0);
  await page.keyboard.press('p');
  await expect(page.getByRole('region', { name: 'Solution' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('img', { name: /^Direction field and step 0 to 1/ })).toBeVisible();
  await expect(page).toHaveURL(/depth=step.*view=class/);
  await page.reload();
  await expect(panels).toBeVisible();
  await expect(page.getByRole('img', { name: /^Direction field and step 0 to 1/ })).toBeVisible();
  await page.keyboard.press('c');
  await expect(panels).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: 'Title of the study' })).toBeVisible();
});

test('several rungs of one method are drawn together, and two runs are subtracted', async ({ page }) => {
  await openStudy(page, 'Relay satellite on a circle');
  const ruler = page.getByRole('slider', { name: 'Step size' });
  await ruler.focus();
  await page.keyboard.press('t');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('t');
  const legend = page.getByRole('region', { name: 'Solution' }).getByRole('button', { name: /^Euler, h = / });
  await expect(legend).toHaveCount(2);
  await expect(page).toHaveURL(/rungs=2\+3/);
  await legend.first().click();
  await expect(legend.first()).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard shortcuts' })).toBeVisible();
});

test('entries chosen together go into the bin together, and come out of it', async ({ page }) => {
  await page.goto('/problems');
  const names = ['Battery', 'Gondola'];
  for (const name of names)
    await page
      .getByRole('checkbox', { name: `Select ${name}`, exact: true })
      .first()
      .check();
  await page.getByRole('button', { name: 'Delete all 2' }).click();
  await expect(page.getByText('2 entries moved to the bin.')).toBeVisible();
  await page.getByRole('button', { name: 'Bin', exact: true }).click();
  const mine = page
    .getByRole('region', { name: 'Bin' })
    .getByRole('group')
    .filter({ hasText: /Battery|Gondola/ });
  await expect(mine).toHaveCount(2);
  await mine.first().getByRole('button', { name: 'Restore' }).click();
  await expect(mine).toHaveCount(1);
  await mine.getByRole('button', { name: 'Delete permanently' }).click();
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete permanently' }).click();
  await expect(mine).toHaveCount(0);
  await page.getByRole('button', { name: 'Back to the problems' }).click();
  await expect(page.getByRole('checkbox', { name: /^Select (Battery|Gondola)$/ })).not.toHaveCount(0);
});

test('on paper a study is its statement, plots, table and sentences, in ink on white', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await openStudy(page, 'Sluice of the snow lake');
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' });
  for (const hidden of ['.ruler-strip', '.top-bar .actions', '.plot-panel-head', '.add-method'])
    await expect(page.locator(hidden).first()).toBeHidden();
  for (const shown of ['.statement-column', '.plot-panel-large canvas', '.rung-table', '.findings'])
    await expect(page.locator(shown).first()).toBeVisible();
  expect(await page.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe(
    'rgb(255, 255, 255)',
  );
});
