import { expect, type Locator, type Page } from '@playwright/test';

/** Opens a demo study from the list. */
export async function openStudy(page: Page, title: string): Promise<void> {
  await page.goto('/studies');
  // only rows in sight are in the page
  await page.getByRole('searchbox').fill(title);
  await page.getByRole('link', { name: title }).click();
  await expect(page.getByRole('textbox', { name: 'Title of the study' })).toHaveValue(title);
  await expect(rows(page).first()).toBeVisible();
}

/** The rungs of the table. */
export function rows(page: Page): Locator {
  return page.getByRole('region', { name: 'Step sizes and errors' }).locator('tbody tr');
}

/** The cells of a row as plain text. */
export async function cells(row: Locator): Promise<readonly string[]> {
  return (await row.locator('th, td').allInnerTexts()).map((text) => text.replace(/\s+/g, ''));
}

/** Replaces the whole text of an open editor. */
export async function typeText(page: Page, label: string, text: string): Promise<void> {
  const editor = page.getByRole('textbox', { name: label, exact: true });
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await page.keyboard.insertText(text);
}

/** Waits until the page says that it is saved. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
}

/** Chooses from a list that opens. */
export async function choose(page: Page, list: string, option: string): Promise<void> {
  const box = page.getByRole('combobox', { name: list, exact: true });
  await box.click();
  await page.getByTitle(option, { exact: true }).filter({ visible: true }).last().click();
}
