import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { cells, rows, saved } from './study-page.ts';
import { test } from './test.ts';

const TUTORIAL = readFileSync(join(import.meta.dirname, '../docs/tutorial.md'), 'utf8');

/** The code blocks of the tutorial, in their order. */
const BLOCKS = [...TUTORIAL.matchAll(/^```\n([\s\S]*?)^```$/gm)].map(([, text = '']) => text.trimEnd());

/** Presses Tab until the control of this name has the focus; the tutorial must name the control in bold. */
async function tabTo(page: Page, name: string): Promise<void> {
  expect(TUTORIAL).toContain(`**${name}**`);
  for (let i = 0; i < 150; i += 1) {
    await page.keyboard.press('Tab');
    const focused = await page.evaluate(() => {
      const { activeElement } = document;
      return activeElement?.getAttribute('aria-label') ?? activeElement?.textContent.trim() ?? '';
    });
    if (focused === name) return;
  }
  throw new Error(`Tab does not reach ${name}`);
}

async function press(page: Page, name: string): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press('Enter');
}

async function typeBlock(page: Page, text: string): Promise<void> {
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
}

test('the tutorial can be followed by keyboard from its text alone', async ({ page }) => {
  const [problem = '', heun = ''] = BLOCKS;
  await page.goto('/studies');
  await press(page, 'New study');
  await expect(page.getByRole('textbox', { name: 'Title of the study' })).toHaveValue('New study');

  await press(page, 'Edit the problem');
  await expect(page.getByRole('textbox', { name: 'the problem', exact: true })).toBeFocused();
  await typeBlock(page, problem);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('region', { name: 'Problem' }).locator('annotation').first()).toContainText(
    'level',
  );

  await press(page, 'New method');
  await tabTo(page, 'Title of the method');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Heun');
  await tabTo(page, 'the method Heun');
  await typeBlock(page, heun);
  await page.keyboard.press('Control+Enter');
  await press(page, 'Edit Heun');
  await press(page, 'Replace with h*k1');
  await page.keyboard.press('Control+Enter');

  await press(page, 'Edit the step sizes');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('1, 2, 6');
  await page.keyboard.press('Enter');
  await expect(rows(page)).toHaveCount(6);
  await press(page, '+ halve h');
  await expect(rows(page)).toHaveCount(7);
  await expect.poll(async () => (await cells(rows(page).nth(6)))[1]).toBe('512');
  await expect(page.getByText('Order 2.00', { exact: false }).first()).toBeVisible();

  await page.keyboard.press('2');
  await expect(page.getByRole('region', { name: 'Rows' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('complementary', { name: 'Worked step' })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('1');
  await expect(rows(page)).toHaveCount(7);
  await page.keyboard.press('c');
  await page.keyboard.press('c');
  await press(page, 'Export');
  await expect(page.getByRole('dialog', { name: 'Export' })).toBeVisible();
  await page.keyboard.press('Escape');
  await saved(page);
});
