// Speed of the real page in Chromium: a cold first view, a typed character, a drag, and what goes over the wire.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium as install } from './chromium.mjs';
import { buildNode, buildWeb, root } from './fresh.mjs';

const PORT = 4778;
const HOST = `http://127.0.0.1:${PORT}`;
const COLD = 5;
const TYPED = 25;
const RUNGS = 'section[aria-label="Step sizes and errors"] tbody tr';
const TWELVE = [
  'Euler',
  'Heun',
  'Midpoint',
  'Kutta 3',
  'RK4',
  'Ralston 2',
  'Heun 3',
  'SSP 3',
  '3/8 rule',
  'RK6',
  'Adams-Bashforth 2',
  'Adams-Bashforth 4',
];

const at = (values, part) => [...values].sort((a, b) => a - b)[Math.floor(values.length * part)];

async function started(folder) {
  const server = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, SCHRITT_PORT: String(PORT), SCHRITT_DATA: folder },
    stdio: 'ignore',
  });
  for (let i = 0; i < 200; i += 1) {
    const up = await fetch(`${HOST}/api/health`).catch(() => null);
    if (up?.ok) return server;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('the server did not start');
}

/** Milliseconds until the table of a study is there in a fresh browser, and what came over the wire for it. */
async function coldView(browserOf, address) {
  const browser = await browserOf();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const wire = await page.context().newCDPSession(page);
  await wire.send('Network.enable');
  const bytes = { script: 0, font: 0, other: 0 };
  const kinds = new Map();
  wire.on('Network.responseReceived', ({ requestId, type }) => kinds.set(requestId, type));
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const type = kinds.get(requestId);
    bytes[type === 'Script' ? 'script' : type === 'Font' ? 'font' : 'other'] += encodedDataLength;
  });
  await page.addInitScript(
    `new MutationObserver(() => { if (!window.there && document.querySelector('${RUNGS}'))
       window.there = performance.now(); }).observe(document, { childList: true, subtree: true })`,
  );
  await page.goto(address);
  await page.locator(RUNGS).first().waitFor();
  const milliseconds = await page.evaluate('window.there');
  await page.waitForTimeout(1000);
  await browser.close();
  return { milliseconds, bytes };
}

/** Milliseconds from a typed digit of a parameter to the frame that shows the new numbers. */
async function typedDigits(page) {
  await page.getByRole('button', { name: 'Edit the problem' }).click();
  const editor = page.getByRole('textbox', { name: 'the problem', exact: true });
  await editor.click();
  await page.keyboard.press('Control+Home');
  while (!(await lineAtCaret(page)).startsWith('k = ')) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('End');
  await page.evaluate(`
    window.times = [];
    let from = 0;
    addEventListener('keydown', () => { from = performance.now(); }, { capture: true });
    new MutationObserver(() => {
      if (from === 0) return;
      const began = from;
      from = 0;
      requestAnimationFrame(() => window.times.push(performance.now() - began));
    }).observe(document.querySelector('section[aria-label="Step sizes and errors"]'), { childList: true, subtree: true, characterData: true });
  `);
  for (let i = 0; i < TYPED; i += 1) {
    await page.keyboard.press(String(1 + (i % 9)));
    await page.waitForTimeout(350);
    if (i % 8 === 7) for (let k = 0; k < 8; k += 1) await page.keyboard.press('Backspace');
  }
  return page.evaluate('window.times');
}

function lineAtCaret(page) {
  return page.evaluate(
    `document.getSelection()?.anchorNode?.parentElement?.closest('.cm-line')?.textContent ?? ''`,
  );
}

/** Milliseconds between the frames of a drag along the ruler. */
async function draggedFrames(page) {
  const ruler = page.getByRole('slider', { name: 'Step size' });
  const box = await ruler.boundingBox();
  await page.mouse.move(box.x + box.width * 0.3, box.y + 50);
  await page.mouse.down();
  await page.evaluate(`
    window.frames_ = [];
    let last = performance.now();
    const next = (now) => { window.frames_.push(now - last); last = now; window.frame_ = requestAnimationFrame(next); };
    window.frame_ = requestAnimationFrame(next);
  `);
  for (let i = 0; i < 120; i += 1) {
    await page.mouse.move(box.x + box.width * (0.3 + 0.005 * i), box.y + 50);
    await page.waitForTimeout(12);
  }
  await page.mouse.up();
  return page.evaluate('cancelAnimationFrame(window.frame_), window.frames_.slice(2)');
}

/** What the page takes, measured in this run. */
export async function benchPage(LIBRARY) {
  install();
  buildNode();
  buildWeb();
  const require = createRequire(join(root, 'e2e/package.json'));
  const { chromium } = require('@playwright/test');
  const browserOf = () => chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const folder = mkdtempSync(join(tmpdir(), 'schritt-bench-'));
  const server = await started(folder);
  try {
    const { entries } = await (await fetch(`${HOST}/api/studies`)).json();
    const first = entries[0];
    const address = `${HOST}/studies/${first.id}`;
    const views = [];
    for (let i = 0; i < COLD; i += 1) views.push(await coldView(browserOf, address));
    const browser = await browserOf();
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    await page.locator(RUNGS).first().waitFor();
    const typed = await typedDigits(page);
    const { document } = await (await fetch(`${HOST}/api/studies/${first.id}`)).json();
    const methods = TWELVE.map((title) => LIBRARY.find((method) => method.title === title)).map(
      ({ title, text }) => ({ title, text }),
    );
    const twelve = await (
      await fetch(`${HOST}/api/studies`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ document: { ...document, title: 'Twelve', methods } }),
      })
    ).json();
    await page.goto(`${HOST}/studies/${twelve.id}`);
    await page.locator(RUNGS).first().waitFor();
    await page.waitForTimeout(1500);
    const frames = await draggedFrames(page);
    await browser.close();
    const { bytes } = views[0];
    return {
      coldMilliseconds: at(
        views.map(({ milliseconds }) => milliseconds),
        0.5,
      ),
      typedMilliseconds: at(typed, 0.5),
      dragFrameMilliseconds: { median: at(frames, 0.5), p95: at(frames, 0.95), frames: frames.length },
      kilobytes: {
        script: Math.round(bytes.script / 1000),
        font: Math.round(bytes.font / 1000),
        other: Math.round(bytes.other / 1000),
      },
    };
  } finally {
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}
