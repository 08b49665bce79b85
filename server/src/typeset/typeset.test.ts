import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LONGEST_FORMULA, MOST_FORMULAS } from '@schritt/core/notation';
import type { NestExpressApplication } from '@nestjs/platform-express';
import katex from 'katex';
import request, { type Test } from 'supertest';
import { testServer } from '../test-server.ts';

let folder: string;
let app: NestExpressApplication;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
  app = await testServer(folder);
  await app.init();
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

function post(formulas: unknown): Test {
  return request(app.getHttpServer()).post('/api/typeset').send({ formulas });
}

test('formulas come back set in their order, in a line of their own or not, also when asked for again', async () => {
  const formulas = [
    { tex: "y' = -k\\,y", block: false },
    { tex: '\\frac{h}{2}', block: true },
    { tex: '\\frac{h}{2}', block: false },
  ];
  const set = formulas.map(({ tex, block }) => katex.renderToString(tex, { displayMode: block }));
  for (let again = 0; again < 2; again += 1) {
    const answer = await post(formulas);
    expect(answer.status).toBe(200);
    expect(answer.body).toEqual({ html: set });
  }
  expect(set[1]).not.toBe(set[2]);
});

test('no formula becomes HTML, a link or a style of its own, and one that is none is shown as it was typed', async () => {
  const answer = await post([
    { tex: '\\href{javascript:alert(1)}{x}', block: false },
    { tex: '\\htmlStyle{color: red}{x}', block: false },
    { tex: '<img src=x onerror=alert(1)>', block: false },
    { tex: '\\frac{', block: false },
  ]);
  const { html }: { html: string[] } = JSON.parse(JSON.stringify(answer.body));
  expect(html).toHaveLength(4);
  for (const one of html) expect(one).not.toMatch(/<a\b|<img|href="javascript|style="color: red/);
  expect(html[3]).toContain('katex-error');
});

test.each([
  ['no list', 'h'],
  ['a number', [{ tex: 3, block: true }]],
  ['a formula without its kind', [{ tex: 'h' }]],
  ['one that is too long', [{ tex: 'h'.repeat(LONGEST_FORMULA + 1), block: true }]],
  ['one that makes commands', [{ tex: '\\def\\a{x}\\a', block: true }]],
  ['one that names them anew', [{ tex: 'x\n\\let\\b=\\frac', block: true }]],
  ['one with too many cells', [{ tex: '\\begin{cases}' + '&'.repeat(61) + '\\end{cases}', block: true }]],
  ['too many', Array.from({ length: MOST_FORMULAS + 1 }, () => ({ tex: 'h', block: true }))],
])('%s is refused with its place', async (_what, formulas) => {
  const answer = await post(formulas);
  expect(answer.status).toBe(400);
  expect(JSON.stringify(answer.body)).toContain('formulas');
});

test('commands that only begin like those that make others are set', async () => {
  const tex = '\\left(\\leq \\longrightarrow \\defect\\right)';
  expect((await post([{ tex, block: false }])).status).toBe(200);
});

test('set formulas are packed for who takes them so', async () => {
  const formulas = Array.from({ length: 8 }, (_, i) => ({
    tex: `k_${i} = f(t + h, y + h k_1)`,
    block: true,
  }));
  const answer = await post(formulas).set('accept-encoding', 'gzip');
  expect(answer.headers['content-encoding']).toBe('gzip');
  expect(JSON.parse(JSON.stringify(answer.body))).toHaveProperty('html.7');
});
