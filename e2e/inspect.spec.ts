import { expect } from '@playwright/test';
import { cells, choose, openStudy, typeText } from './study-page.ts';
import { test } from './test.ts';

test('a planted slip is found on the method page, and its repair taken', async ({ page }) => {
  await page.goto('/methods');
  await page.getByRole('searchbox').fill('RK4');
  await page.getByRole('link', { name: 'RK4', exact: true }).click();
  const order = page.getByRole('region', { name: 'Order' });
  await expect(order).toContainText('Order 4, proved from the text');
  await expect(order.getByRole('img', { name: 'The tree of this condition' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Convergence tests' }).locator('tbody tr')).toHaveCount(9);
  await expect(page.getByRole('region', { name: 'Stability' })).toContainText('up to 2.785294');
  await expect(page.getByRole('img', { name: /^Stability region of RK4/ })).toBeVisible();
  await page.getByText('order star', { exact: true }).click();
  await expect(page.getByRole('img', { name: /^Order star of RK4/ })).toBeVisible();

  // the 2 before k3 is forgotten
  await typeText(
    page,
    'the method',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + k3 + k4)\n',
  );
  const remarks = page.getByRole('list', { name: 'Remarks on the method' });
  await expect(remarks).toContainText('the weights of the slopes sum to 5/6');
  await expect(order).toContainText('Order 0');
  await remarks.getByRole('button', { name: 'Replace with 2*k3' }).click();
  await expect(order).toContainText('Order 4');
  await expect(remarks).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: 'the method', exact: true })).toContainText('2*k2 + 2*k3');
});

test('a coefficient typed into the tableau becomes the text', async ({ page }) => {
  await page.goto('/methods');
  await page.getByRole('searchbox').fill('Ralston 2');
  await page.getByRole('link', { name: 'Ralston 2', exact: true }).click();
  const grid = page.getByRole('region', { name: 'Coefficients' });
  for (const [cell, value] of [
    ['c 2', '1/2'],
    ['a 2 1', '1/2'],
    ['b 1', '0'],
    ['b 2', '1'],
  ] as const)
    await grid.getByRole('textbox', { name: cell, exact: true }).fill(value);
  await grid.getByRole('button', { name: 'Write as text' }).click();
  await expect(page.getByRole('textbox', { name: 'the method', exact: true })).toContainText(
    'y[n+1] = y + h*k2',
  );
  await expect(page.getByRole('region', { name: 'Order' })).toContainText('Order 2');
});

test('a study shows predictions: the leading error dashed, its N for a target error, eigenvalues in the region', async ({
  page,
}) => {
  await openStudy(page, 'Sluice of the snow lake');
  await expect(page.locator('.findings')).toContainText('of the predicted leading term');
  await page.getByRole('button', { name: 'predicted N' }).click();
  const asked = page.locator('.asked-steps tr').filter({ hasText: 'Euler' });
  await expect(asked).toContainText('run: 0.00499');
  await asked.getByRole('button').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('h = 0.0394089');
  await page.getByRole('tab', { name: 'Stability' }).click();
  await expect(
    page.getByRole('img', { name: /^Stability region of Euler .* with h times the eigenvalues/ }),
  ).toBeVisible();
  await page.getByRole('combobox', { name: 'What is drawn' }).press('ArrowDown');
  await page.getByText('all regions', { exact: true }).click();
  await expect(
    page.getByRole('img', { name: /^Stability region of Euler .* and edges of those of Heun/ }),
  ).toBeVisible();
});

test('rows of a method with an embedded formula have estimated and actual errors of single steps', async ({
  page,
  request,
}) => {
  const document = {
    schritt: 1,
    kind: 'study',
    title: 'A pair in the sluice',
    problem: { title: 'Decay', text: "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)" },
    methods: [
      {
        title: 'Pair',
        text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*k1\nyhat[n+1] = y + h/2*(k1 + k2)\n',
      },
    ],
    ladder: { counts: [4, 8, 16] },
  };
  const made = await request.post('/api/studies', { data: { document } });
  const { id }: { readonly id: string } = await made.json();
  await page.goto(`/studies/${id}?depth=run&rung=0`);
  await choose(page, 'Methods whose rows are shown', 'Pair, all stages');
  const table = page.getByRole('region', { name: 'Rows' });
  await expect(table.getByRole('columnheader', { name: 'local error y' })).toBeVisible();
  const first = await cells(table.locator('tbody tr').first());
  // one step of Euler minus one of Heun, and minus exp(-h), with h = 1/2
  expect(first.slice(-2)).toEqual(['−0.125', `−${(Math.exp(-0.5) - 0.5).toFixed(3)}`]);
  await request.delete(`/api/studies/${id}`);
  await request.delete(`/api/studies/${id}/permanently`);
});
