import { readFileSync } from 'node:fs';
import { type Browser, expect, type Page } from '@playwright/test';
import { openStudy } from './study-page.ts';
import { test } from './test.ts';

/** How long the ruler is dragged; the tests drag for a moment, an hour shows more. */
const SECONDS = Number(process.env['SCHRITT_SOAK_SECONDS'] ?? 40);
/** Memory that is used at the end, as a part of that at the start. */
const MOST = 1.2;
/** Seconds of dragging before memory is looked at first: engines compile what is used and fill their caches. */
const BEFORE = 20;

test.setTimeout(1000 * (SECONDS + BEFORE + 180));

interface ProcessInfo {
  readonly processInfo: readonly { readonly type: string; readonly id: number }[];
}

/** Bytes that the pages of a browser and their workers hold in memory, after what is not needed is thrown away. */
async function memoryOf(
  browser: Browser,
  page: Page,
): Promise<{ readonly heap: number; readonly resident: number }> {
  const session = await page.context().newCDPSession(page);
  for (let i = 0; i < 3; i += 1) await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  await session.detach();
  const whole = await browser.newBrowserCDPSession();
  const { processInfo }: ProcessInfo = await whole.send('SystemInfo.getProcessInfo');
  await whole.detach();
  const kilobytes = processInfo
    .filter(({ type }) => type === 'renderer')
    .map(({ id }) => Number(/VmRSS:\s*(\d+)/.exec(readFileSync(`/proc/${id}/status`, 'utf8'))?.[1] ?? 0));
  return { heap: usedSize, resident: 1024 * kilobytes.reduce((sum, size) => sum + size, 0) };
}

/** Drags the ruler to and fro, and answers how many moves that were. */
async function drag(page: Page, seconds: number): Promise<number> {
  const box = (await page.getByRole('slider', { name: 'Step size' }).boundingBox())!;
  const until = Date.now() + 1000 * seconds;
  let moves = 0;
  while (Date.now() < until) {
    await page.mouse.move(box.x + 0.3 * box.width, box.y + 50);
    await page.mouse.down();
    for (let i = 0; i < 200; i += 1) {
      // to and fro, never twice over the same places
      const part = 0.5 + 0.3 * Math.sin(0.071 * (moves += 1));
      await page.mouse.move(box.x + part * box.width, box.y + 50);
    }
    await page.mouse.up();
  }
  return moves;
}

test('memory does not grow while the ruler is dragged', async ({ page, browser }) => {
  await openStudy(page, 'Sluice of the snow lake');
  await drag(page, BEFORE);
  const before = await memoryOf(browser, page);
  const moves = await drag(page, SECONDS);
  const after = await memoryOf(browser, page);
  const [heap, resident] = [after.heap / before.heap, after.resident / before.resident];
  console.log(`${moves} moves: heap ${heap.toFixed(3)}, resident ${resident.toFixed(3)} of the start`);
  expect(moves).toBeGreaterThan(200);
  expect(heap).toBeLessThan(MOST);
  expect(resident).toBeLessThan(MOST);
});
