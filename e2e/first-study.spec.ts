import { expect } from '@playwright/test';
import { cells, rows, saved } from './study-page.ts';
import { test } from './test.ts';

/** The number in a cell, with or without a power of ten. */
function numberIn(cell: string | undefined): number {
  return Number(cell?.replaceAll('−', '-').replace('×10', 'e'));
}

test('a first study, typed as in a book: problem, exact solution, Euler and Heun, halving, orders', async ({
  page,
}) => {
  await page.goto('/studies');
  await page.getByRole('button', { name: 'New study' }).click();
  await expect(page.getByRole('textbox', { name: 'Title of the study' })).toHaveValue('New study');

  // the problem, as it is written on a board
  await page.getByRole('button', { name: 'Edit the problem' }).click();
  const problem = page.getByRole('textbox', { name: 'the problem', exact: true });
  await problem.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type("y' = t - 2y,  y(0) = 1\nt in [0, 2]\ny(t) = t/2 - 1/4 + 5/4 e^(-2t)\n");
  await expect(page.getByRole('list', { name: 'Errors in the problem' }).getByRole('listitem')).toHaveCount(
    0,
  );
  await page.getByRole('button', { name: 'Done' }).click();
  const statement = page.getByRole('region', { name: 'Problem' });
  await expect(statement.locator('annotation')).toHaveText([
    "y' = t - 2 y",
    'y(0) = 1',
    '0 \\le t \\le 2',
    /^y\(t\) = \\frac\{t\}\{2\} - \\frac\{1\}\{4\}/,
  ]);

  // Euler, with the slip of a subscript, and its repair
  await page.getByRole('button', { name: 'Edit Euler' }).click();
  const euler = page.getByRole('textbox', { name: 'the method Euler', exact: true });
  await euler.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('y_n+1 = y_n + h f(t_n, y_n)');
  const errors = page.getByRole('list', { name: 'Errors in the method Euler' }).getByRole('listitem');
  await expect(errors).toHaveText([/^1:1 y_n\+1 is ambiguous: write y\[n\+1\] or y\[n\] \+ 1/]);
  await page.getByRole('button', { name: 'Replace with y[n+1]', exact: true }).click();
  await expect(errors).toHaveCount(0);
  await expect(euler).toHaveText('y[n+1] = y_n + h f(t_n, y_n)');
  await page.getByRole('button', { name: 'Done' }).click();

  // Heun as in a book
  await page.getByRole('button', { name: 'New method' }).click();
  await page.getByRole('textbox', { name: 'Title of the method' }).fill('Heun');
  const heun = page.getByRole('textbox', { name: 'the method Heun', exact: true });
  await heun.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(
    'k_1 = f(t_n, y_n);\nk_2 = f(t_n + h, y_n + h k_1);\ny_{n+1} = y_n + \\frac{h}{2} (k_1 + k_2)',
  );
  await expect(
    page.getByRole('list', { name: 'Errors in the method Heun' }).getByRole('listitem'),
  ).toHaveCount(0);
  await page.getByRole('button', { name: 'Done' }).click();

  // halving
  await page.getByRole('button', { name: 'Edit the step sizes' }).click();
  await page.getByRole('textbox', { name: 'Step sizes' }).fill('0.25, 2, 6');
  await page.getByRole('textbox', { name: 'Step sizes' }).press('Enter');
  await expect(rows(page)).toHaveCount(6);

  // both methods are exact on t/2 - 1/4, so that what is left is 5/4 (R(-2h)^N - e^-4)
  for (const [row, steps] of [8, 16, 32, 64, 128, 256].entries()) {
    const z = -4 / steps;
    const expected = [1 + z, 1 + z + z ** 2 / 2].map((r) =>
      Number((1.25 * Math.abs(r ** steps - Math.exp(-4))).toPrecision(3)),
    );
    await expect
      .poll(async () => {
        const found = await cells(rows(page).nth(row));
        return [found[1], numberIn(found[2]), numberIn(found[5])];
      })
      .toEqual([String(steps), ...expected]);
  }
  const last = await cells(rows(page).nth(5));
  expect(Number(last[4])).toBeCloseTo(1, 1);
  expect(Number(last[7])).toBeCloseTo(2, 1);
  await saved(page);
});

test('what can be typed is offered, and the meaning of a name is reported', async ({ page }) => {
  await page.goto('/problems');
  await page.getByRole('link', { name: 'Sluice' }).first().click();
  const editor = page.getByRole('textbox', { name: 'the problem', exact: true });
  await expect(editor).toContainText('level');
  await editor.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('\nconse');
  const offer = page.getByRole('option', { name: /conserved E = x\^2 \+ v\^2/ });
  await expect(offer).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(editor).toContainText('conserved');
  await page.keyboard.press('Escape');
  await page.locator('.cm-line', { hasText: 'k = 0.35' }).hover({ position: { x: 8, y: 8 } });
  await expect(page.locator('.hint')).toHaveText('a parameter: 0.35');
  await expect(page.getByText('Derivatives along the solution')).toBeVisible();
});
