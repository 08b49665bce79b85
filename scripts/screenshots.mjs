// Takes the pictures of docs/screenshots anew: the main views, made of the demo data in a folder of its own.
import { mkdtempSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium as install } from './chromium.mjs';
import { buildNode, buildWeb, root } from './fresh.mjs';
import { startServer } from './programs.mjs';

const SLIP =
  'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + k3 + k4)\n';

async function answered(path, more = {}) {
  return (await fetch(`${server.address}/api/${path}`, more)).json();
}

async function addressOf(kind, title) {
  const { entries } = await answered(`${kind}?count=200`);
  return `/${kind}/${entries.find((entry) => entry.title === title).id}`;
}

/** Types a text in place of the one of a method. */
async function rewrite(page, title, text) {
  await page.getByRole('button', { name: `Edit ${title}` }).click();
  await page.getByRole('textbox', { name: `the method ${title}` }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
}

/** Chooses from a list that opens. */
async function choose(page, list, option) {
  await page.getByRole('combobox', { name: list, exact: true }).click();
  await page.getByTitle(option, { exact: true }).filter({ visible: true }).last().click();
}

async function takeAway(page, what) {
  await page.getByRole('button', { name: 'Export' }).click();
  await choose(page, 'What to export', what);
}

async function handout(page) {
  await takeAway(page, 'Handout');
  await choose(page, 'Method of the run', 'Heun');
  await page.getByLabel('Instructions').fill('Work out the first hours by hand. Which error remains?');
  await page.getByLabel('Blanks').fill('rows after 2');
  await page.getByLabel('Individual parameters').fill('k in 0.2, 0.25, ..., 0.35');
  await page.getByLabel('variants').fill('20');
}

/** A class of forty that used Heun's method on the sluice with h = 0.25: some took h/2 for h, some forgot h, some erred once. */
function forty() {
  const columns = Array.from({ length: 40 }, (_, i) => {
    const kind = i % 5 < 3 ? 'right' : ['half', 'no h', 'slip'][i % 3];
    const rows = [4];
    for (let n = 0; n < 32; n += 1) {
      const k1 = -0.35 * Math.sqrt(rows[n]);
      const k2 = -0.35 * Math.sqrt(rows[n] + (kind === 'half' ? 0.125 : kind === 'no h' ? 1 : 0.25) * k1);
      rows.push(rows[n] + 0.125 * (k1 + k2) + (kind === 'slip' && n === 8 ? 0.2 : 0));
    }
    return [`Student ${i + 1}`, ...rows.map((level) => level.toFixed(4))];
  });
  return columns[0]
    .map((_, n) => [n === 0 ? 'n' : n - 1, ...columns.map((own) => own[n])].join('\t'))
    .join('\n');
}

async function marking(page) {
  await page.getByLabel('Pasted rows').fill(forty());
  await choose(page, 'Study', 'Sluice of the snow lake');
  await choose(page, 'Method', 'Heun');
  await page.getByLabel('Step size', { exact: true }).fill('0.25');
  await page.getByRole('heading', { name: / of 40 are right/ }).waitFor();
  await page.getByRole('row', { name: /^Student 5 / }).click();
}

/** Name of the file, kind and title of the entry, what the address says besides, and what is done there. */
const SHOTS = [
  ['study', 'studies', 'Sluice of the snow lake', ''],
  ['run', 'studies', 'Sway of the gondola', 'depth=run'],
  ['step', 'studies', 'Sluice of the snow lake', 'depth=step&N=8&n=3&method=1'],
  ['class', 'studies', 'Sluice of the snow lake', 'view=class&panels=table'],
  ['digits', 'studies', 'Order 8 beyond double precision', ''],
  ['study-kink', 'studies', 'Heater on a clock', ''],
  ['study-many', 'studies', 'Marmots and lynx', ''],
  ['stability', 'studies', 'Sway of the gondola', 'depth=run&large=stability&method=2'],
  ['leading', 'studies', 'Battery of the weather station', 'depth=run&large=error&beside=solution'],
  ['problem', 'problems', 'Thermistor', ''],
  ['calculator', 'studies', 'Frost line by pocket calculator', 'depth=step&N=12&n=3&method=0'],
  ['method', 'methods', 'RK4', ''],
  ['slip', 'methods', 'RK4 as typed', ''],
  ['studies', 'studies', null, ''],
  ['methods', 'methods', null, ''],
  [
    'export',
    'studies',
    'Marmots and lynx',
    '',
    async (page) => {
      await takeAway(page, 'Plot');
      await page.getByText('Black and white').click();
    },
  ],
  ['handout', 'studies', 'Sluice of the snow lake', 'depth=run&N=8', handout],
  ['marking', 'marking', null, '', marking],
  [
    'errors',
    'studies',
    'Sluice of the snow lake',
    '',
    (page) => rewrite(page, 'Heun', 'k1 = f(t, y)\nk2 = f(t + h, y + h*k_i)\ny[n+1] = y + h/2*(k1 + k3)\n'),
  ],
];

install();
buildNode();
buildWeb();
const require = createRequire(join(root, 'e2e/package.json'));
const { chromium } = require('@playwright/test');
const folder = mkdtempSync(join(tmpdir(), 'schritt-pictures-'));
const server = await startServer(folder);

/** What is there while a page is not whole, or computes. */
const UNDER_WAY = '.table-head:empty, .under-way, .ant-skeleton';

/** Waits until all of a page is there and nothing is under way. */
async function settled(page, milliseconds) {
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(milliseconds);
  await page.locator(UNDER_WAY).first().waitFor({ state: 'detached' });
  await page.waitForTimeout(milliseconds);
}

const wished = process.argv.slice(2);
try {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  for (const [name, kind, title, query, act] of SHOTS) {
    if (wished.length > 0 && !wished.includes(name)) continue;
    if (name === 'slip')
      await answered('methods', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ document: { schritt: 1, kind: 'method', title: 'RK4 as typed', text: SLIP } }),
      });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    const path = title === null ? `/${kind}` : await addressOf(kind, title);
    await page.goto(`${server.address}${path}?${query}`);
    await settled(page, 1500);
    if (act !== undefined) {
      await act(page);
      await settled(page, 1000);
    }
    await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
    console.log(name);
    await page.close();
  }
  await browser.close();
} finally {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
