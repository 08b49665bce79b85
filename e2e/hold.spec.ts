import { expect } from '@playwright/test';
import { openStudy, saved } from './study-page.ts';
import { test } from './test.ts';

test('work that the server does not take is kept in the browser, asked for when leaving, and offered again', async ({
  page,
}) => {
  // the server cannot be reached, also not by the last words of a page that goes away
  await page.addInitScript(() => {
    const real = window.fetch.bind(window);
    window.fetch = (input, init) =>
      input instanceof Request && input.method === 'PUT' && localStorage.getItem('cut off') !== null
        ? Promise.reject(new TypeError('cut off'))
        : real(input, init);
  });
  await openStudy(page, 'Sway of the gondola');
  await page.evaluate(() => localStorage.setItem('cut off', 'yes'));
  const title = page.getByRole('textbox', { name: 'Title of the study' });
  await title.fill('Sway, unsaved');
  await expect(page.getByRole('alert')).toContainText('Not saved; kept in this browser');
  await page.getByRole('link', { name: 'Studies', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Leave with unsaved work?' });
  await dialog.getByRole('button', { name: 'Stay' }).click();
  await expect(title).toHaveValue('Sway, unsaved');
  // the browser asks as well; a person who leaves all the same finds everything again
  const asked: string[] = [];
  page.on('dialog', (question) => {
    asked.push(question.type());
    void question.accept();
  });
  await page.goto('about:blank');
  expect(asked).toEqual(['beforeunload']);
  await page.goto('/problems');
  await page.evaluate(() => localStorage.clear());
  await openStudy(page, 'Sway of the gondola');
  const offer = page.getByRole('alert').filter({ hasText: 'This browser has unsaved changes from' });
  await offer.getByRole('button', { name: 'Restore them' }).click();
  await expect(title).toHaveValue('Sway, unsaved');
  await saved(page);
  await page.reload();
  await expect(title).toHaveValue('Sway, unsaved');
  await expect(offer).toHaveCount(0);
  await title.fill('Sway of the gondola');
  await saved(page);
});

test('a study that was deleted elsewhere is stored as a new one', async ({ page, request }) => {
  await openStudy(page, 'Relay satellite on a circle');
  const id = page.url().split('/').at(-1) ?? '';
  expect((await request.delete(`/api/studies/${id}`)).status()).toBe(204);
  const title = page.getByRole('textbox', { name: 'Title of the study' });
  await title.fill('Relay satellite, again');
  const gone = page.getByRole('alert').filter({ hasText: 'Deleted in another tab; not saved' });
  await gone.getByRole('button', { name: 'Save as new' }).click();
  await expect(page).not.toHaveURL(new RegExp(id));
  await saved(page);
  await title.fill('Relay satellite on a circle');
  await saved(page);
});

test('a study is shown at a link: one can look and try, and nothing is saved', async ({ page }) => {
  await openStudy(page, 'Battery of the weather station');
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  await page.getByRole('button', { name: 'Create link' }).click();
  const link = await page.getByRole('textbox', { name: 'Link to the study' }).inputValue();
  expect(link).toMatch(/\/shown\/[\w-]{24}$/);
  await page.goto(link);
  const title = page.getByRole('textbox', { name: 'Title of the study' });
  await expect(title).toHaveValue('Battery of the weather station');
  await expect(
    page.getByRole('region', { name: 'Step sizes and errors' }).locator('tbody tr').first(),
  ).toBeVisible();
  await title.fill('Mine for now');
  await expect(page.getByRole('status').filter({ hasText: 'changes are not saved' })).toBeVisible();
  await page.reload();
  await expect(title).toHaveValue('Battery of the weather station');
  await page.goto('/shown/nothing');
  await expect(page.getByText('this study is not shared')).toBeVisible();
});

test('texts made to freeze a list leave it as it is; each can be saved as a file and deleted', async ({
  page,
  request,
}) => {
  const nasty = [
    ['Deep', `y' = ${'sin('.repeat(190)}y${')'.repeat(190)}\ny(0) = 1\n0 <= t <= 1`],
    ['Wide', `y' = ${Array.from({ length: 1400 }, () => 'sin(y)').join(' + ')}\ny(0) = 1\n0 <= t <= 1`],
    ['Bars', '|'.repeat(19_990)],
    ['Marks', '<img src=x onerror=alert(1)>\\href{javascript:alert(1)}{x}'],
  ] as const;
  for (const [title, text] of nasty) {
    const document = { schritt: 1, kind: 'problem', title: `Nasty, ${title}`, text };
    expect((await request.post('/api/problems', { data: { document } })).status()).toBe(201);
  }
  await page.goto('/problems');
  for (const [title] of nasty) {
    const row = page.getByRole('group', { name: `Nasty, ${title}` });
    await expect(row).toBeVisible();
    const download = page.waitForEvent('download');
    await row.getByRole('button', { name: 'Download' }).click();
    expect((await download).suggestedFilename()).toBe(`nasty-${title.toLowerCase()}.schritt.json`);
    await row.getByRole('button', { name: 'Delete' }).click();
    await expect(row).toHaveCount(0);
  }
});

test('an editor full of errors marks the first hundred and stays at hand', async ({ page }) => {
  await openStudy(page, 'Battery in mixed thirds');
  await page.getByRole('button', { name: 'Edit the problem' }).click();
  const editor = page.getByRole('textbox', { name: 'the problem', exact: true });
  await editor.click();
  await page.keyboard.press('Control+a');
  await editor.evaluate((element, text) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', text);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, 'y = = |\n'.repeat(2000));
  await expect(page.getByRole('list', { name: /^Errors in/ }).getByRole('listitem')).toHaveCount(100);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('list', { name: /^Errors in/ }).getByRole('listitem')).toHaveCount(0);
});
