import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './test.ts';

const ROOT = join(import.meta.dirname, '..');

interface Rung {
  readonly h: number;
  readonly steps: number;
  readonly t: number;
  readonly values: Readonly<Record<string, number | string>> | readonly number[];
  /** All digits of a run in decimals, which a report has as its values. */
  readonly decimals?: readonly string[] | null;
  readonly error: number | null;
  readonly order: number | null;
}

interface Fit {
  readonly order: number;
  readonly standardError: number | null;
}

interface Numbers {
  readonly methods: readonly { readonly rungs: readonly Rung[]; readonly fit: Fit | null }[];
  readonly findings: readonly { readonly sentence: string }[];
}

/** A hash over all numbers of a study to the last bit, and over what is found of them. */
function hashOf(numbers: Numbers): string {
  const list = numbers.methods.flatMap(({ rungs }) =>
    rungs.map(({ h, steps, t, values, decimals, error, order }) => [
      ...[h, steps, t],
      Object.values(decimals ?? values),
      ...[error, order],
    ]),
  );
  const fits = numbers.methods.map(({ fit }) => fit && [fit.order, fit.standardError]);
  const findings = numbers.findings.map(({ sentence }) => sentence);
  return createHash('sha256')
    .update(JSON.stringify([list, fits, findings]))
    .digest('hex');
}

test('the worker, the server and the terminal give the same bits', async ({ page, request }) => {
  await page.goto('/studies');
  await page.getByRole('searchbox').fill('Marmots');
  await page.getByRole('link', { name: 'Marmots and lynx' }).click();
  await expect(
    page.getByRole('region', { name: 'Step sizes and errors' }).locator('tbody tr').first(),
  ).toBeVisible();
  const { entries }: { readonly entries: { readonly id: string; readonly title: string }[] } = await (
    await request.get('/api/studies')
  ).json();
  for (const file of readdirSync(join(ROOT, 'demo'))) {
    const path = join(ROOT, 'demo', file);
    const document: { readonly kind: string; readonly title: string; readonly methods: readonly unknown[] } =
      JSON.parse(readFileSync(path, 'utf8'));
    const stored = entries.find((entry) => entry.title === document.title);
    if (document.kind !== 'study' || stored === undefined) continue;
    const inWorker = await page.evaluate(async (asked): Promise<Numbers> => {
      interface Answered {
        readonly kind: string;
        readonly answer: Numbers;
        readonly why: string;
      }
      const address = performance
        .getEntriesByType('resource')
        .find((entry) => entry.name.includes('compute.worker'))?.name;
      const worker = new Worker(address ?? '', { type: 'module' });
      const ask = (kind: string, question: object): Promise<Answered> =>
        new Promise((done, fail) => {
          const hear = ({ data }: MessageEvent<Answered>): void => {
            if (data.kind === 'progress') return;
            worker.removeEventListener('message', hear);
            if (data.kind === 'failed') fail(new Error(data.why));
            else done(data);
          };
          worker.addEventListener('message', hear);
          worker.postMessage({ id: 1, kind, question: { document: asked, ...question } });
        });
      const runs: unknown[] = [];
      for (const method of asked.methods.keys()) runs.push((await ask('method', { method })).answer);
      const { answer } = await ask('conclude', { runs });
      worker.terminate();
      return answer;
    }, document);
    const answered = await request.get(`/api/studies/${stored.id}/report`);
    expect(answered.ok(), `${file}: ${await answered.text()}`).toBe(true);
    const onServer: Numbers = await answered.json();
    const printed = execFileSync(
      'npm',
      ['run', '--silent', 'schritt', '--', 'study', path, '--format', 'json'],
      {
        cwd: ROOT,
        encoding: 'utf8',
        stdio: ['ignore', 'pipe', 'ignore'],
      },
    );
    const inTerminal: Numbers = JSON.parse(printed);
    expect([file, hashOf(onServer), hashOf(inWorker)]).toEqual([
      file,
      hashOf(inTerminal),
      hashOf(inTerminal),
    ]);
  }
});
