import { expect, type Locator } from '@playwright/test';
import { cells, choose, openStudy, rows, saved, typeText } from './study-page.ts';
import { test } from './test.ts';

test('a demo study: change the right-hand side, type a method, add a rung; the table follows and is there after a reload', async ({
  page,
}) => {
  await openStudy(page, 'Sluice of the snow lake');
  expect((await cells(rows(page).nth(2))).slice(0, 5)).toEqual(['0.5', '16', '0.0651', '2.07', '1.05']);

  await page.getByRole('button', { name: 'Edit the problem' }).click();
  await typeText(
    page,
    'the problem',
    "level' = -k*level\nk = 1/2\nlevel(0) = 4\n0 <= t <= 8\nlevel(t) = 4*exp(-k*t)\n",
  );
  await page.getByRole('button', { name: 'Done' }).click();
  // Euler at h = 0.5: 4*(1 - 0.25)^16 against 4*exp(-4)
  const euler = Math.abs(4 * 0.75 ** 16 - 4 * Math.exp(-4));
  await expect.poll(async () => Number((await cells(rows(page).nth(2)))[2])).toBeCloseTo(euler, 4);

  await page.getByRole('button', { name: 'New method' }).click();
  await page.getByRole('textbox', { name: 'Title of the method' }).fill('By hand');
  await typeText(page, 'the method By hand', 's = f(t, y)\ny[n+1] = y + h*f(t + h/2, y + h/2*s)\n');
  await page.getByRole('button', { name: 'Done' }).click();
  const table = page.getByRole('region', { name: 'Step sizes and errors' });
  await expect(table.getByRole('columnheader', { name: 'By hand' })).toBeVisible();
  // on a linear problem Heun and the midpoint rule are the same polynomial
  await expect
    .poll(async () => (await cells(rows(page).nth(3)))[11])
    .toBe((await cells(rows(page).nth(3)))[5]);

  const before = await rows(page).count();
  await page.getByRole('button', { name: '+ halve h' }).click();
  await expect(rows(page)).toHaveCount(before + 1);
  expect((await cells(rows(page).nth(before))).slice(0, 2)).toEqual(['0.015625', '512']);

  await saved(page);
  const last = await cells(rows(page).nth(before));
  await page.reload();
  await expect(rows(page)).toHaveCount(before + 1);
  expect(await cells(rows(page).nth(before))).toEqual(last);

  await page.getByRole('button', { name: '+ halve h' }).click();
  await expect(rows(page)).toHaveCount(before + 2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows(page)).toHaveCount(before + 1);
});

test('errors stand at their places as one types, and the last good result stays', async ({ page }) => {
  await openStudy(page, 'Battery of the weather station');
  const good = await cells(rows(page).nth(1));
  await page.getByRole('button', { name: 'Edit the problem' }).click();
  await typeText(page, 'the problem', "c' = -a*c + sin t/2\na = 0,8\nc(0) = 1\n0 <= t <= 3\n");
  const errors = page.getByRole('list', { name: 'Errors in the problem' }).getByRole('listitem');
  await expect(errors).toHaveText([
    '1:13 sin without brackets is ambiguous here: write sin(t)/2 or sin(t/2)Replace with sin(t)/2Replace with sin(t/2)',
    '2:5 use a decimal point, not a comma: write 0.8Replace with 0.8',
  ]);
  await expect(page.locator('.cm-lintRange-error')).toHaveText(['sin t/2', '0,8']);
  expect(await cells(rows(page).nth(1))).toEqual(good);

  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText('The text has 2 errors; showing the last valid one.')).toBeVisible();
  await page.getByRole('button', { name: 'Edit Midpoint' }).click();
  await typeText(page, 'the method Midpoint', 'y[n+1] = y + k1\n');
  await expect(
    page.getByRole('list', { name: 'Errors in the method Midpoint' }).getByRole('listitem'),
  ).toHaveText([/^1:14 k1 is not known/]);
  expect(await cells(rows(page).nth(1))).toEqual(good);

  await saved(page);
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'the problem', exact: true })).toContainText(
    "c' = -a*c + sin t",
  );
});

test('the step ruler is moved with keys and moves the whole page', async ({ page }) => {
  await openStudy(page, 'Frost line in the soil');
  const ruler = page.getByRole('slider', { name: 'Step size' });
  await ruler.focus();
  // h grows to the right, as in the plot of the order
  await page.keyboard.press('End');
  await expect(page.getByRole('heading', { name: 'h = 2' })).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('heading', { name: 'h = 1' })).toBeVisible();
  await expect(rows(page).nth(1)).toHaveAttribute('aria-selected', 'true');
  await rows(page).nth(4).click();
  await expect(ruler).toHaveAttribute('aria-valuetext', 'h = 0.125, 96 steps');

  // the handle goes to any h that divides the interval, by the mouse and by single steps, and becomes a rung
  const count = await rows(page).count();
  const middleOf = async (rung: number): Promise<{ x: number; y: number }> => {
    const box = await ruler.locator(`[data-rung="${rung}"] circle`).boundingBox();
    if (box === null) throw new Error('the ruler has no such peg');
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const [peg, next] = [await middleOf(1), await middleOf(2)];
  await page.mouse.move(peg.x, peg.y);
  await page.mouse.down();
  await page.mouse.move((peg.x + next.x) / 2, peg.y, { steps: 8 });
  await page.mouse.up();
  // half way between 12 and 24 steps on the logarithmic scale
  await expect(ruler).toHaveAttribute('aria-valuenow', '17');
  await ruler.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('heading', { name: 'h = 0.75' })).toBeVisible();
  await page.getByRole('button', { name: 'Add this h' }).click();
  await expect(rows(page)).toHaveCount(count + 1);
  await expect(rows(page).nth(2)).toHaveAttribute('aria-selected', 'true');
  expect((await cells(rows(page).nth(2))).slice(0, 2)).toEqual(['0.75', '16']);
});

test('two pages on one study: both versions are shown, and a person chooses for each part', async ({
  page,
  context,
}) => {
  await openStudy(page, 'Frost line in the soil');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(rows(other).first()).toBeVisible();
  await other.getByRole('textbox', { name: 'Title of the study' }).fill('Frost line, theirs');
  await other.getByRole('button', { name: 'Edit Midpoint' }).click();
  await typeText(
    other,
    'the method Midpoint',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h*k1/2)\ny[n+1] = y + h*k2',
  );
  await saved(other);
  await page.getByRole('textbox', { name: 'Title of the study' }).fill('Frost line, mine');
  await expect(page.getByRole('alert')).toContainText('Edited in another tab; not saved');
  await page.getByRole('button', { name: 'Compare versions' }).click();
  const dialog = page.getByRole('dialog');
  const choice = (part: string, copy: string): Locator =>
    dialog.getByRole('radiogroup', { name: part, exact: true }).getByRole('radio', { name: copy });
  // changed in both, and in the other tab alone
  await expect(choice('Title', 'This page')).toBeChecked();
  await expect(choice('Midpoint', 'The other tab')).toBeChecked();
  await expect(dialog.locator('mark')).toContainText([
    'Frost line, mine',
    'Frost line, theirs',
    'k2 = f(t + h/2, y + h/2*k1)',
    'k2 = f(t + h/2, y + h*k1/2)',
  ]);
  await dialog.getByRole('button', { name: 'Save this choice' }).click();
  await saved(page);
  await other.reload();
  await expect(other.getByRole('textbox', { name: 'Title of the study' })).toHaveValue('Frost line, mine');
  await other.getByRole('button', { name: 'Edit Midpoint' }).click();
  await expect(other.getByRole('textbox', { name: 'the method Midpoint', exact: true })).toContainText(
    'y + h*k1/2',
  );
  await other.close();
  // as it was
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('textbox', { name: 'Title of the study' }).fill('Frost line in the soil');
  await saved(page);
});

test('what was changed can be undone after the page was left', async ({ page }) => {
  await openStudy(page, 'Frost line in the soil');
  const title = page.getByRole('textbox', { name: 'Title of the study' });
  await title.fill('Frost line, another title');
  await saved(page);
  await page.goto('/methods');
  await page.goBack();
  await expect(title).toHaveValue('Frost line, another title');
  await page.reload();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(title).toHaveValue('Frost line in the soil');
  await expect(page.getByRole('button', { name: 'Redo' })).toBeEnabled();
  await saved(page);
});

test('what is said of work under way moves no numbers', async ({ page }) => {
  // answers of workers come as late as the page says
  await page.addInitScript(() => {
    window.Worker = class extends Worker {
      override addEventListener(kind: string, hear: (event: Event) => void): void {
        super.addEventListener(kind, (event) => {
          const late = Number(document.documentElement.dataset['late'] ?? 0);
          if (late === 0) hear(event);
          else setTimeout(() => hear(event), late);
        });
      }
    };
  });
  await openStudy(page, 'Sluice of the snow lake');
  await expect(page.locator('canvas')).toHaveCount(2);
  const status = page.getByText('Computing the curves');
  const height = async (): Promise<number | undefined> => (await rows(page).first().boundingBox())?.y;
  const before = await height();
  await page.evaluate(() => (document.documentElement.dataset['late'] = '2000'));
  await rows(page).nth(3).click();
  await expect(status).toBeVisible();
  expect(await height()).toBe(before);
  await expect(status).toHaveCount(0);
  expect(await height()).toBe(before);
});

test('a long study tells how far it is and is ended at once when a person cancels it; it goes on without the page', async ({
  page,
  request,
}) => {
  await openStudy(page, 'Marmots and lynx');
  const coarse = await cells(rows(page).nth(0));
  await page.getByRole('button', { name: 'Edit the step sizes' }).click();
  await page.getByText('list of N', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Step sizes' }).fill('60, 90000000, 95000000');
  const status = page
    .getByRole('status')
    .filter({ hasText: /Computing the study on the server.*: [1-9]\d* %/ });
  await expect(status).toBeVisible();
  // the rung that is finished is shown while the others run
  expect((await cells(rows(page).nth(0))).slice(0, 3)).toEqual(coarse.slice(0, 3));
  await status.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('Computing the study was cancelled; partial results are shown.')).toBeVisible();
  expect((await cells(rows(page).nth(0))).slice(0, 3)).toEqual(coarse.slice(0, 3));

  // one that is left alone is done when the page comes back
  await page.getByRole('textbox', { name: 'Step sizes' }).fill('60, 80000000');
  await expect(status).toBeVisible();
  await saved(page);
  await status.getByRole('button', { name: 'Continue in background' }).click();
  await expect(status).toContainText('in the background');
  await page.getByRole('link', { name: 'Studies', exact: true }).click();
  expect((await request.get('/api/health')).ok()).toBe(true);
  await page.getByRole('link', { name: 'Marmots and lynx' }).click();
  await expect.poll(async () => (await cells(rows(page).nth(1)))[1], { timeout: 30_000 }).toBe('80000000');
});

test('a multistep method with chosen starting values, in single precision', async ({ page }) => {
  await openStudy(page, 'Sway of the gondola');
  await page.getByRole('button', { name: 'Add from library' }).click();
  await page.getByRole('combobox', { name: 'Add from library' }).pressSequentially('Bashforth 2');
  await page.keyboard.press('Enter');
  const table = page.getByRole('region', { name: 'Step sizes and errors' });
  await expect(table.getByRole('columnheader', { name: 'Adams-Bashforth 2' })).toBeVisible();
  const coarse = async (): Promise<string | undefined> => (await cells(rows(page).nth(1)))[14];
  const finest = async (): Promise<string | undefined> => (await cells(rows(page).nth(7)))[8];
  const started = await coarse();
  await choose(page, 'Starting values', 'exact values');
  await expect.poll(coarse).not.toBe(started);
  const double = await finest();
  await choose(page, 'Arithmetic', 'single precision');
  await expect.poll(finest).not.toBe(double);
  await saved(page);
});

test('a rung is excluded, a window moved: fit and findings follow, and the file keeps it', async ({
  page,
}) => {
  await openStudy(page, 'Thermistor probe in the air');
  const methods = await page.locator('.rung-table th.method').allInnerTexts();
  const own = page.locator('.rung-table tfoot td').nth(methods.findIndex((title) => title.trim() === 'RK4'));
  await expect(own).toContainText('over 6 step sizes');
  await page.getByRole('button', { name: 'Exclude RK4 at h = 0.0166667' }).focus();
  await page.keyboard.press('Enter');
  await expect(own).toContainText('over 5 step sizes');
  await expect(page.getByRole('region', { name: 'Findings on the study' })).toContainText(
    'Excluded manually: RK4 at h = 0.0166667',
  );
  await page.getByRole('button', { name: 'Set the fit range of RK4 to h = 0.00625' }).click();
  await expect(own).toContainText('over 3 step sizes');
  // from the errors of the table: 2.125e-6 at h, 9.310e-8 at h/2 and 4.911e-9 at h/4
  const slope = Math.log(2.125e-6 / 4.911e-9) / Math.log(4);
  await expect(own).toContainText(slope.toFixed(2));
  await own.getByText('over 3 step sizes').hover();
  await expect(page.locator('.rung-table .first.pointed')).toHaveCount(3);

  await saved(page);
  await page.reload();
  await expect(own).toContainText('over 3 step sizes');
  await page.getByRole('button', { name: 'fit range set manually: reset' }).click();
  await expect(own).toContainText('over 5 step sizes');
  await page.getByRole('button', { name: 'Include RK4 at h = 0.0166667' }).click();
  await expect(own).toContainText('over 6 step sizes');
});

test('the steps of one run with every stage, and the errors over their cost', async ({ page }) => {
  await openStudy(page, 'Thermistor probe in the air');
  await page.getByRole('slider', { name: 'Step size' }).focus();
  await page.keyboard.press('End');
  await expect(page.getByRole('heading', { name: 'h = 0.05' })).toBeVisible();
  await page.getByRole('navigation', { name: 'Level' }).getByRole('button', { name: /steps/ }).click();
  await choose(page, 'Methods whose rows are shown', 'Heun, all stages');
  // y' = -50 (y - cos t) from 0 at h = 0.05: k1 = 50, k2 = -50 (2.5 - cos 0.05)
  const k2 = -50 * (2.5 - Math.cos(0.05));
  const shown = (value: number): string => String(Number(value.toPrecision(8))).replace('-', '−');
  const table = page.getByRole('region', { name: 'Rows' }).locator('tbody tr');
  await expect
    // n, t, the value, the slope f there, and the two stages
    .poll(async () => (await cells(table.nth(0))).slice(0, 6))
    .toEqual(['0', '0', '0', '50', '50', shown(k2)]);
  expect((await cells(table.nth(1)))[2]).toBe(shown(0.025 * (50 + k2)));
  await page.getByRole('tab', { name: 'Work' }).click();
  await expect(
    page.getByRole('img', { name: 'Work: error at t = 1.5 vs evaluations, log-log' }),
  ).toBeVisible();
});
