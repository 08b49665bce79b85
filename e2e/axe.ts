import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

const SOURCE = readFileSync(createRequire(import.meta.url).resolve('axe-core'), 'utf8');

/** What axe finds wrong with a page as it stands: each rule with the first places where it is broken. */
export async function violations(page: Page): Promise<readonly string[]> {
  // evaluated, not added as a script: the page lets no foreign script in
  await page.evaluate(SOURCE);
  const found: unknown = await page.evaluate(
    `axe.run(document, { resultTypes: ['violations'] }).then(({ violations }) =>
       violations.map(({ id, nodes }) => id + ': ' + nodes.slice(0, 4).map(({ target }) => target.join(' ')).join(' | ')))`,
  );
  return Array.isArray(found) ? found.map(String) : ['axe answered nothing'];
}
