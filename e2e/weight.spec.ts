import { expect, test } from '@playwright/test';
import { rows } from './desk.ts';

/** Bytes that a study may take over the wire when it is first opened, fonts and headers included. */
const MOST = 400_000;

test('a study that is opened for the first time takes less than 400 kB, and has its formulas', async ({
  browser,
  request,
}) => {
  const listed: { readonly entries: readonly { readonly id: string; readonly title: string }[] } = await (
    await request.get('/api/studies?count=200')
  ).json();
  for (const title of ['Sluice of the snow lake', 'Sway of the gondola', 'Heater on a clock']) {
    // with nothing kept from before
    const page = await (await browser.newContext()).newPage();
    const session = await page.context().newCDPSession(page);
    await session.send('Network.enable');
    const names = new Map<string, string>();
    const sizes = new Map<string, number>();
    session.on('Network.responseReceived', ({ requestId, response }) => names.set(requestId, response.url));
    session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) =>
      sizes.set(requestId, encodedDataLength),
    );
    const { id } = listed.entries.find((entry) => entry.title === title)!;
    await page.goto(`/studies/${id}`);
    await expect(rows(page).first()).toBeVisible();
    await expect(page.locator('.typeset .katex').first()).toBeVisible();
    await expect(page.locator('.tex-to-come')).toHaveCount(0);
    await page.evaluate(() => document.fonts.ready);
    await page.waitForLoadState('networkidle');
    const total = [...sizes.values()].reduce((sum, size) => sum + size, 0);
    expect(total).toBeGreaterThan(100_000);
    expect([title, total < MOST ? 'light' : total]).toEqual([title, 'light']);
    // what sets formulas comes with the first text that is opened
    const hasTypesetter = (): boolean => [...names.values()].some((url) => /\/katex-[^/]*\.js$/.test(url));
    expect(hasTypesetter()).toBe(false);
    await page.getByRole('button', { name: 'Edit the problem' }).click();
    await expect.poll(hasTypesetter).toBe(true);
    await page.context().close();
  }
});
