import { expect } from '@playwright/test';
import { saved, typeText } from './study-page.ts';
import { test } from './test.ts';

test('the problem page says what was understood, checks the exact solution, and moves parameters apart from the text', async ({
  page,
}) => {
  await page.goto('/problems');
  await page.getByRole('link', { name: 'Gondola' }).click();
  await expect(
    page.getByText(
      /exact solution satisfies the equation \(largest residual \S+e-1[5-7]\) and the initial values/,
    ),
  ).toBeVisible();
  await expect(page.getByText('As a first-order system')).toBeVisible();

  const slider = page.getByRole('slider', { name: 'w' });
  await slider.focus();
  await page.keyboard.press('ArrowRight');
  const text = page.getByRole('textbox', { name: 'the problem', exact: true });
  await expect(text).toContainText('w = 1.7');
  await page.getByRole('button', { name: 'Write to text' }).click();
  await expect(text).toContainText('w = 1.717');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(text).toContainText('w = 1.7');

  await typeText(page, 'the problem', "2*y' + 3*y = cos(5 t)\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-1.5 t)\n");
  await expect(page.getByText(/exact solution does not satisfy the equation for y': residual/)).toBeVisible();
});

test('where no exact solution is known, a manufactured one is made exact', async ({ page }) => {
  await page.goto('/problems');
  await page.getByRole('button', { name: 'New problem' }).click();
  await typeText(page, 'the problem', "y' = -y^3 + t\ny(0) = 1\n0 <= t <= 2\n");
  await expect(page.getByText('reference solution (Taylor series of order 24)')).toBeVisible();
  const wish = page.getByRole('textbox', { name: 'Manufactured solution for y' });
  await wish.fill('2 + y');
  await page.getByRole('button', { name: 'Make it exact' }).click();
  await expect(
    page.getByText('a manufactured solution may contain only t, parameters and numbers'),
  ).toBeVisible();
  await wish.fill('2 + sin(t)');
  await page.getByRole('button', { name: 'Make it exact' }).click();
  await expect(page.getByText(/exact solution satisfies the equation/)).toBeVisible();
  await saved(page);
});
