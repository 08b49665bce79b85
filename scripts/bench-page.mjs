// Speed of the real page in Chromium and in Firefox: a cold first view, a typed digit, a drag, a scroll through a long
// run, and what goes over the wire.
import { mkdtempSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from './chromium.mjs';
import { engines } from './debian.mjs';
import { buildNode, buildWeb, root } from './fresh.mjs';
import { startServer } from './programs.mjs';
import { median, quantile } from './quantile.mjs';

const COLD = 5;
const TYPED = 25;
const RUNGS = 'section[aria-label="Step sizes and errors"] tbody tr';
/** What is there when all of a study is. */
const WHOLE = 'button[aria-label="Edit the problem"]';
const RULER = '[role="slider"][aria-label="Step size"]';
const VIEW = { width: 1280, height: 800 };
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
/** Students whose rows no mistake explains, and the rows of each. */
const STUDENTS = 40;
const STUDENT_ROWS = 33;
/** Steps of a run whose rows are scrolled through. */
const LONG = 1e6;

const BROWSERS = {
  Chromium: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
  Firefox: { browser: 'firefox', executablePath: '/usr/bin/firefox-esr' },
};

const pause = (milliseconds) => new Promise((done) => setTimeout(done, milliseconds));

/**
 * Milliseconds until the table of a study is painted in a fresh browser, and until it answers: the first picture of the
 * server is painted before the page takes its place.
 */
async function coldView(browserOf, address) {
  const browser = await browserOf();
  const page = await browser.newPage();
  await page.evaluateOnNewDocument(
    `const frames = {};
     const note = (what) => {
       if (what in frames) return;
       frames[what] = 0;
       requestAnimationFrame(() => (frames[what] = performance.now()));
     };
     new MutationObserver(() => {
       const row = document.querySelector('${RUNGS}');
       if (row === null) return;
       note('painted');
       if (row.closest('[inert]') === null) note('answers');
     }).observe(document, { childList: true, subtree: true, attributes: true });
     window.frames = frames;`,
  );
  await page.goto(address);
  await page.waitForFunction('window.frames.answers > 0');
  const times = await page.evaluate('window.frames');
  // what is painted first is not there before the browser says so
  const contentful = await page.evaluate(
    `performance.getEntriesByName('first-contentful-paint')[0].startTime`,
  );
  await browser.close();
  return { painted: Math.max(times.painted, contentful), answers: times.answers };
}

/** Kilobytes over the wire for a first view; Chromium alone tells them. */
async function wireBytes(browserOf, address) {
  const browser = await browserOf();
  const page = await browser.newPage();
  const wire = await page.createCDPSession();
  await wire.send('Network.enable');
  const bytes = { script: 0, font: 0, other: 0 };
  const kinds = new Map();
  wire.on('Network.responseReceived', ({ requestId, type }) => kinds.set(requestId, type));
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const type = kinds.get(requestId);
    bytes[type === 'Script' ? 'script' : type === 'Font' ? 'font' : 'other'] += encodedDataLength;
  });
  await page.goto(address);
  await page.waitForSelector(RUNGS);
  await pause(1000);
  await browser.close();
  return Object.fromEntries(Object.entries(bytes).map(([kind, count]) => [kind, Math.round(count / 1000)]));
}

/** Milliseconds from a typed digit of a parameter to the frame that shows the new numbers. */
async function typedDigits(page) {
  await page.click(WHOLE);
  await (await page.waitForSelector('[role="textbox"][aria-label="the problem"]')).click();
  await page.keyboard.down('Control');
  await page.keyboard.press('Home');
  await page.keyboard.up('Control');
  while (!(await lineAtCaret(page)).startsWith('k = ')) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('End');
  await page.evaluate(`
    window.times = [];
    let from = 0;
    addEventListener('keydown', ({ key }) => { from = key.length === 1 ? performance.now() : 0; }, { capture: true });
    new MutationObserver(() => {
      if (from === 0) return;
      const began = from;
      from = 0;
      requestAnimationFrame(() => window.times.push(performance.now() - began));
    }).observe(document.querySelector('section[aria-label="Step sizes and errors"]'), { childList: true, subtree: true, characterData: true });
  `);
  for (let i = 0; i < TYPED; i += 1) {
    // one more digit, which changes numbers that are shown, and away with it
    await page.keyboard.press(String(1 + (i % 9)));
    await pause(350);
    await page.keyboard.press('Backspace');
    await pause(350);
  }
  return page.evaluate('window.times');
}

function lineAtCaret(page) {
  return page.evaluate(
    `document.getSelection()?.anchorNode?.parentElement?.closest('.cm-line')?.textContent ?? ''`,
  );
}

/** Milliseconds between frames while something is done with the page. */
async function framesDuring(page, work) {
  await page.evaluate(`
    window.frameTimes = [];
    let last = performance.now();
    const next = (now) => { window.frameTimes.push(now - last); last = now; window.nextFrame = requestAnimationFrame(next); };
    window.nextFrame = requestAnimationFrame(next);
  `);
  await work();
  const frames = await page.evaluate('cancelAnimationFrame(window.nextFrame), window.frameTimes');
  return frames.slice(2);
}

/** The frames of a drag along the ruler. */
async function draggedFrames(page) {
  const ruler = await page.waitForSelector(RULER);
  const box = await ruler.boundingBox();
  const move = (part) => page.mouse.move(box.x + box.width * part, box.y + 50);
  await move(0.3);
  await page.mouse.down();
  const frames = await framesDuring(page, async () => {
    for (let i = 0; i < 120; i += 1) {
      await move(0.3 + 0.005 * i);
      await pause(12);
    }
  });
  await page.mouse.up();
  return frames;
}

/** The frames of a scroll through the rows of a run of a million steps. */
async function scrolledFrames(page) {
  // the level of one run, with its table of steps
  await page.keyboard.press('2');
  const rows = await page.waitForSelector('.rung-table.steps tbody tr');
  const box = await rows.boundingBox();
  await page.mouse.move(box.x + 60, box.y + 10);
  await pause(3000);
  const top = () => rows.evaluate((row) => row.getBoundingClientRect().top + row.textContent);
  const before = await top();
  const frames = await framesDuring(page, async () => {
    for (let i = 0; i < 80; i += 1) {
      await page.mouse.wheel({ deltaY: 240 });
      await pause(16);
    }
  });
  if ((await top()) === before) throw new Error('the rows did not move');
  return frames;
}

/** What a class hands in, as a table to paste: numbers that fall with noise. */
function pasted() {
  let seed = 1;
  const noise = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const names = Array.from({ length: STUDENTS }, (_, i) => `Student ${i + 1}`);
  const rows = Array.from({ length: STUDENT_ROWS }, (_, n) =>
    [n, ...names.map(() => (4 - 0.1 * n - (n === 0 ? 0 : noise())).toFixed(5))].join('\t'),
  );
  return [['n', ...names].join('\t'), ...rows].join('\n');
}

/** The frames of a page while its workers mark a class. */
async function markingFrames(page) {
  await page.waitForSelector('[aria-label="Pasted rows"]');
  // set as a person would paste it: the page hears of it
  await page.evaluate(`{
    const area = document.querySelector('[aria-label="Pasted rows"]');
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set.call(area, ${JSON.stringify(pasted())});
    area.dispatchEvent(new Event('input', { bubbles: true }));
  }`);
  await page.type('[aria-label="Step size"]', '0.25');
  await page.waitForSelector('.marking-results [role="status"]');
  return framesDuring(page, () =>
    page.waitForFunction(
      `document.querySelectorAll('[aria-label="Class"] tbody tr[data-row-key]').length >= ${STUDENTS} &&
        !document.querySelector('.marking-results').textContent.includes('Computing')`,
      { timeout: 120_000 },
    ),
  );
}

/** The frames of the page of a method while workers inspect a text that changes with every digit. */
async function inspectionFrames(page) {
  await (await page.waitForSelector('.cm-content')).click();
  await page.keyboard.down('Control');
  await page.keyboard.press('End');
  await page.keyboard.up('Control');
  await page.keyboard.type('\n# ');
  return framesDuring(page, async () => {
    for (let i = 0; i < 10; i += 1) {
      await page.keyboard.press(String(i % 10));
      await pause(250);
    }
    await pause(2000);
  });
}

const framesOf = (frames) => ({
  median: median(frames),
  p95: quantile(frames, 0.95),
  longest: Math.max(...frames),
  frames: frames.length,
});

/** Adds a study to a server; answers its id. */
async function added(server, document) {
  const response = await fetch(`${server}/api/studies`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document }),
  });
  return (await response.json()).id;
}

async function benchBrowser(browserOf, addresses) {
  const cold = [];
  for (let i = 0; i < COLD; i += 1) cold.push(await coldView(browserOf, addresses.first));
  const browser = await browserOf();
  const measured = async (address, measure, isThere = WHOLE) => {
    const page = await browser.newPage();
    await page.goto(address);
    await page.waitForSelector(isThere);
    await pause(1500);
    const found = await measure(page);
    await page.close();
    return found;
  };
  const typed = await measured(addresses.first, typedDigits);
  const dragged = await measured(addresses.twelve, draggedFrames);
  const scrolled = await measured(addresses.long, scrolledFrames);
  const marking = await measured(addresses.marking, markingFrames, '[aria-label="Pasted rows"]');
  const inspecting = await measured(addresses.method, inspectionFrames, '.cm-content');
  await browser.close();
  return {
    coldMilliseconds: {
      painted: median(cold.map(({ painted }) => painted)),
      answers: median(cold.map(({ answers }) => answers)),
    },
    typedMilliseconds: { median: median(typed), p95: quantile(typed, 0.95) },
    drag: framesOf(dragged),
    scroll: framesOf(scrolled),
    marking: framesOf(marking),
    inspecting: framesOf(inspecting),
  };
}

/** What the page takes, measured in this run, in each browser. */
export async function benchPage(LIBRARY) {
  chromium();
  engines();
  buildNode();
  buildWeb();
  const { launch } = createRequire(join(root, 'e2e/package.json'))('puppeteer-core');
  const folder = mkdtempSync(join(tmpdir(), 'schritt-bench-'));
  const server = await startServer(folder);
  const { address } = server;
  try {
    const { entries } = await (await fetch(`${address}/api/studies`)).json();
    const first = entries.find(({ title }) => title === 'Sluice of the snow lake');
    const { document } = await (await fetch(`${address}/api/studies/${first.id}`)).json();
    const own = await (await fetch(`${address}/api/methods`)).json();
    const methods = TWELVE.map((title) => LIBRARY.find((method) => method.title === title)).map(
      ({ title, text }) => ({ title, text }),
    );
    const twelve = { ...document, title: 'Twelve', methods };
    const long = {
      ...document,
      title: 'Long',
      methods: methods.slice(4, 5),
      ladder: { counts: [LONG] },
    };
    const marked = { ...document, title: 'Marked', methods: methods.slice(4, 5) };
    const addresses = {
      first: `${address}/studies/${first.id}`,
      twelve: `${address}/studies/${await added(address, twelve)}`,
      long: `${address}/studies/${await added(address, long)}`,
      marking: `${address}/marking?study=${await added(address, marked)}`,
      method: `${address}/methods/${own.entries.find(({ title }) => title === 'RK4').id}`,
    };
    const browsers = {};
    for (const [name, options] of Object.entries(BROWSERS))
      browsers[name] = await benchBrowser(
        () => launch({ headless: true, defaultViewport: VIEW, ...options }),
        addresses,
      );
    const kilobytes = await wireBytes(
      () => launch({ headless: true, defaultViewport: VIEW, ...BROWSERS.Chromium }),
      addresses.first,
    );
    return { browsers, kilobytes };
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
