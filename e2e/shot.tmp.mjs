// usage: node shot.tmp.mjs "<url or studies:title>" out.png act...   (act: js in page with $ = page helpers)
import { chromium } from '@playwright/test';
const [where, out, ...acts] = process.argv.slice(2);
const base = 'http://127.0.0.1:4890';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await (
  await b.newContext({
    viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
    deviceScaleFactor: 1,
  })
).newPage();
page.on('pageerror', (e) => console.log('PAGEERROR', String(e).slice(0, 300)));
if (where.startsWith('studies:')) {
  await page.goto(base + '/studies');
  const t = where.slice(8);
  await page
    .getByPlaceholder(/search/i)
    .first()
    .fill(t)
    .catch(() => {});
  await page.getByRole('link', { name: t }).first().click();
  await page.waitForTimeout(2500);
} else {
  await page.goto(base + where);
  await page.waitForTimeout(2000);
}
for (const act of acts) {
  try {
    await new Function('page', `return (async()=>{${act}})()`)(page);
  } catch (e) {
    console.log('ACT', act.slice(0, 60), String(e).slice(0, 300));
  }
  await page.waitForTimeout(700);
}
await page.screenshot({ path: out });
await b.close();
