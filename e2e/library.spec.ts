import { expect } from '@playwright/test';
import { saved, typeText } from './study-page.ts';
import { test } from './test.ts';

test('a method of the library is opened, changed, saved, and a study starts from it', async ({ page }) => {
  await page.goto('/methods');
  await page.getByRole('searchbox').fill('Heun');
  await page.getByRole('link', { name: 'Heun', exact: true }).click();
  await expect(page.getByText('2 evaluations of f per step')).toBeVisible();
  await typeText(
    page,
    'the method',
    'k1 = f(t, y)\nk2 = f(t + 2/3*h, y + 2/3*h*k1)\ny[n+1] = y + h*(1/4*k1 + 3/4*k2)\n',
  );
  await saved(page);
  await page.getByRole('button', { name: 'Start a study' }).click();
  await expect(page.getByRole('region', { name: 'Step sizes and errors' }).locator('tbody tr')).toHaveCount(
    6,
  );
});

test('a study is deleted and brought back; a file that is none is refused with its place', async ({
  page,
}) => {
  await page.goto('/studies');
  // the list begins with the latest, and is loaded in parts
  await page.getByRole('searchbox').fill('Battery of');
  const link = page.getByRole('link', { name: 'Battery of the weather station' });
  await expect(link).toHaveCount(1);
  await page.getByRole('group').filter({ has: link }).getByRole('button', { name: 'Delete' }).click();
  await expect(link).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(link).toHaveCount(1);

  const file = {
    name: 'broken.schritt.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"schritt": 1, "kind": "study", "colour": 3}'),
  };
  await page.locator('input[type=file]').setInputFiles(file);
  await expect(page.getByText('colour: is not a field of this format')).toBeVisible();
});
