import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
import { cells, choose, openStudy } from './study-page.ts';
import { test } from './test.ts';

/** Heun on level' = -0.35 sqrt(level) from 4 by h = 0.5, up to the step after n: k1, k2 and the new value. */
function heun(n: number): {
  readonly from: number;
  readonly k1: number;
  readonly k2: number;
  readonly to: number;
} {
  const f = (level: number): number => -0.35 * Math.sqrt(level);
  let from = 4;
  for (let i = 0; i < n; i += 1) from += 0.25 * (f(from) + f(from + 0.5 * f(from)));
  const k1 = f(from);
  const k2 = f(from + 0.5 * k1);
  return { from, k1, k2, to: from + 0.25 * (k1 + k2) };
}

const seven = (x: number): string => String(Number(x.toPrecision(7)));

test('from the study to a run and a step of it; a link brings the step back', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  await expect(page.getByRole('img', { name: /^Order: error at t = 8 vs h/ })).toBeVisible();
  const depth = page.getByRole('navigation', { name: 'Level' });
  await depth.getByRole('button', { name: '16 steps' }).click();

  // rows of all methods side by side: exact, then value and error of each
  const row = page.getByRole('region', { name: 'Rows' }).locator('tbody tr').nth(10);
  const { to } = heun(9);
  const exact = (2 - (0.35 * 5) / 2) ** 2;
  await expect
    .poll(async () => (await cells(row)).slice(0, 3))
    .toEqual(['10', '5', String(Number(exact.toPrecision(8)))]);
  expect((await cells(row))[5]).toBe(String(Number(to.toPrecision(8))));
  await expect(page.getByRole('img', { name: 'error of level vs t, logarithmic' })).toBeVisible();

  // every fourth row, and a time that is asked for
  await choose(page, 'Which rows', 'every 4th row');
  await expect
    .poll(async () => (await cells(page.getByRole('region', { name: 'Rows' }).locator('tbody tr').nth(2)))[0])
    .toBe('8');
  await page.getByRole('textbox', { name: 'Go to n or time' }).fill('t = 4.5');
  await page.keyboard.press('Enter');
  const first = page.getByRole('region', { name: 'Rows' }).locator('tbody tr').first();
  await expect.poll(async () => (await cells(first))[0]).toBe('9');

  // a click on a value works that step out
  await first.locator('td').nth(4).click();
  await expect(page).toHaveURL(/depth=step/);
  const worked = page.getByRole('complementary', { name: 'Worked step' });
  const lines = worked.locator('annotation');
  const { from, k1, k2 } = heun(9);
  await expect(lines.first()).toHaveText(`k_{1} = f(t, y) = -0.35 \\sqrt{${seven(from)}} = ${seven(k1)}`);
  await expect(lines.nth(3)).toContainText(`= ${seven(to)}`);
  await expect(page.getByRole('img', { name: 'Direction field and step 9 to 10: level vs t' })).toBeVisible();
  expect(seven(k2)).toBe('-0.3927886');

  await page.reload();
  await expect(lines.first()).toContainText(seven(from));
  await expect(page.getByRole('heading', { name: 'h = 0.5' })).toBeVisible();
});

test('a step is played by keys, line by line, and the next one comes by an arrow', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  await page.keyboard.press('3');
  const worked = page.getByRole('complementary', { name: 'Worked step' });
  await page.keyboard.press('ArrowDown');
  await expect(worked.locator('.worked-line')).toHaveCount(4);
  await page.keyboard.press('Space');
  await expect(worked.locator('.worked-line')).toHaveCount(1);
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  await expect(worked.locator('.worked-line')).toHaveCount(3);
  await expect(worked.locator('.worked-line.now')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await expect(worked.locator('.worked-line')).toHaveCount(4);
  await page.keyboard.press('ArrowRight');
  await expect(worked.getByText('step 1 → 2')).toBeVisible();
  await expect(worked.locator('annotation').first()).toContainText(seven(heun(1).k1));
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard shortcuts' })).toBeVisible();
});

test('any plot can be made the large one, and h is typed', async ({ page }) => {
  await openStudy(page, 'Sway of the gondola');
  await page.getByRole('tab', { name: 'Phase' }).click();
  await expect(page.getByRole('img', { name: "Phase plane: x' vs x" })).toBeVisible();
  await page.getByRole('button', { name: 'Swap plots' }).click();
  await expect(page.getByRole('tab', { name: 'Solution', selected: true })).toBeVisible();
  await expect(page.getByRole('img', { name: "Phase plane: x' vs x" })).toBeVisible();
  await page.getByRole('heading').getByRole('button', { name: /^h = / }).click();
  await page.getByRole('textbox', { name: /Step size, or N/ }).fill('N = 50');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'h = 0.2' })).toBeVisible();
  await expect(page).toHaveURL(/N=50/);
});

test('a plot is drawn out by the wheel and brought back, and saved as a plot and as its data', async ({
  page,
}) => {
  await openStudy(page, 'Sluice of the snow lake');
  const plot = page.getByRole('img', { name: /^Order: error at t = 8 vs h/ });
  const whole = page.getByRole('button', { name: 'Reset zoom' });
  await plot.hover();
  await expect(whole).toHaveCount(0);
  await page.mouse.wheel(0, -300);
  await expect(whole).toBeVisible();
  await whole.click();
  await expect(whole).toHaveCount(0);
  await plot.press('+');
  await expect(whole).toBeVisible();
  await plot.press('0');
  await expect(whole).toHaveCount(0);

  await plot.hover();
  const large = page.getByRole('region', { name: 'Order' });
  const [data] = await Promise.all([
    page.waitForEvent('download'),
    large.getByRole('button', { name: 'CSV' }).click(),
  ]);
  const [head, first = ''] = (await readFile(await data.path(), 'utf8')).split('\r\n');
  expect(head).toBe('series,x,y');
  // Euler at h = 2: four steps against (2 - 0.35*8/2)^2
  let level = 4;
  for (let n = 0; n < 4; n += 1) level -= 2 * 0.35 * Math.sqrt(level);
  const [series, h, error] = first.split(',');
  expect([series, h]).toEqual(['Euler', '2']);
  expect(Number(error)).toBeCloseTo(Math.abs(level - 0.36), 13);
  const [png] = await Promise.all([
    page.waitForEvent('download'),
    large.getByRole('button', { name: 'PNG' }).click(),
  ]);
  expect(png.suggestedFilename()).toBe('Order-error-at-t-8-vs-h-log-log.png');
});

test('every plot is saved as shown: its curves, its axes and its legend, each once', async ({ page }) => {
  await openStudy(page, 'Sluice of the snow lake');
  const svgOf = async (tab: string): Promise<string> => {
    await page.getByRole('tab', { name: tab, exact: true }).click();
    const panel = page.getByRole('region', { name: tab, exact: true });
    await expect(panel.locator('canvas')).toBeVisible();
    await panel.locator('canvas').hover();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      panel.getByRole('button', { name: 'SVG' }).click(),
    ]);
    return (await readFile(await file.path(), 'utf8')).replaceAll('&#160;', ' ');
  };
  const words = (svg: string): readonly string[] =>
    [...svg.matchAll(/<text[^>]*>([^<]*)<\/text>/g)].map(([, word = '']) => word);
  const times = (all: readonly string[], word: string): number => all.filter((one) => one === word).length;
  for (const tab of ['Order', 'Work', 'Solution', 'Error']) {
    const all = words(await svgOf(tab));
    for (const name of ['Euler', 'Heun', 'RK4']) expect(times(all, name), `${name} in ${tab}`).toBe(1);
  }
  // what is switched off is in neither
  const solution = page.getByRole('region', { name: 'Solution', exact: true });
  await page.getByRole('tab', { name: 'Solution', exact: true }).click();
  await solution.getByRole('button', { name: 'Heun' }).click();
  const shown = await svgOf('Solution');
  expect(times(words(shown), 'Heun')).toBe(0);
  // the line of the solution, through hundreds of points
  expect(shown).toMatch(/<path[^>]* d="[^"]{3000,}"/);
  // the slope of Euler's stage and the step along it
  expect(await svgOf('Direction field')).toMatch(/<path[^>]*stroke="#B5490F"[^>]*stroke-width="3"/i);
  const region = await svgOf('Stability');
  expect(words(region)).toContain('Re z');
  // its edge is many pieces
  expect(region.match(/<path[^>]*stroke="#B5490F"/gi)?.length).toBeGreaterThan(60);
});

test('rows are copied all, and selected cells as plain numbers', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const onClipboard = (): Promise<string> => page.evaluate(() => navigator.clipboard.readText());
  await openStudy(page, 'Sway of the gondola');
  const table = page.getByRole('region', { name: 'Step sizes and errors' });
  // from the error of Euler at the largest h to that of RK4 at the next one
  await table.evaluate((region) => {
    const rows = [...region.querySelectorAll('tbody tr')];
    const range = document.createRange();
    range.setStartBefore(rows[0]!.querySelector('th')!);
    range.setEndAfter(rows[1]!.querySelectorAll('td')[8]!);
    document.getSelection()!.removeAllRanges();
    document.getSelection()!.addRange(range);
  });
  await page.keyboard.press('Control+c');
  const cellsCopied = (await onClipboard()).split('\n').map((line) => line.split('\t'));
  expect(cellsCopied.map((line) => line[0])).toEqual(['0.5', '0.25']);
  // 8.84 x 10^-4 is shown
  expect(Number(cellsCopied[1]!.at(-2))).toBeCloseTo(8.84e-4, 6);
  expect(cellsCopied[1]!.at(-2)).toMatch(/^0\.000\d{10,}$/);

  await page.getByRole('navigation', { name: 'Level' }).getByRole('button', { name: '80 steps' }).click();
  await expect(page.getByRole('region', { name: 'Rows' }).locator('tbody tr')).toHaveCount(40);
  await page.getByRole('button', { name: 'Copy rows' }).click();
  await expect(page.getByRole('button', { name: 'Copied 81 rows' })).toBeVisible();
  const lines = (await onClipboard()).split('\n');
  expect(lines).toHaveLength(1 + 81);
  expect(lines.at(-1)).toMatch(/^80\t10\t-?\d/);
});
