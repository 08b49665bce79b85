import { performance } from 'node:perf_hooks';
import { startServer } from '../programs.mjs';
import { percentile, send, watchHealth } from './requests.mjs';

const STUDY = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6\n" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [4, 8] },
};
const bars = {
  ...STUDY,
  methods: Array.from({ length: 24 }, (_, i) => ({ title: `M${i}`, text: '|'.repeat(19_990) })),
};
const keys = `{${Array.from({ length: 60_000 }, (_, i) => `"k${i}":1`).join(',')}}`;
const chain = Array.from({ length: 40 }, (_, i) => `a${i}' = a${i + 1}' + a${i + 1}'`).join('\n');
const CASES = [
  ['a login of 450,000 values', 'POST', '/api/access', `[${'1,'.repeat(450_000)}1]`, [400, 413]],
  [
    'a login of as many values as its size allows',
    'POST',
    '/api/access',
    `{"key": [${'1,'.repeat(900)}1]}`,
    [400],
  ],
  ['a document of 450,000 values', 'POST', '/api/studies', `{"document": [${'1,'.repeat(450_000)}1]}`, [400]],
  ['60,000 fields', 'POST', '/api/studies', keys, [400]],
  ['60,000 fields of a document', 'POST', '/api/studies', `{"document": ${keys}}`, [400]],
  [
    '100,000 lists inside one another',
    'POST',
    '/api/studies',
    `{"document": ${'['.repeat(100_000)}${']'.repeat(100_000)}}`,
    [400],
  ],
  ['24 methods of | x 19,990, stored', 'POST', '/api/studies', { document: bars }, [201]],
  ['24 methods of | x 19,990, run', 'POST', '/api/jobs', { document: bars }, [400]],
  [
    'forty equations that grow',
    'POST',
    '/api/jobs',
    { document: { ...STUDY, problem: { title: 'C', text: `${chain}\na40' = 1` } } },
    [400],
  ],
  ['__proto__', 'POST', '/api/studies', '{"document": {"__proto__": {"kind": "study"}}}', [400]],
  ['half a megabyte of nothing', 'POST', '/api/studies', `{"document": ${' '.repeat(500_000)}3}`, [400]],
  ['no JSON', 'POST', '/api/methods', '{'.repeat(10_000), [400]],
  ['two megabytes', 'POST', '/api/methods', `{"document": "${'x'.repeat(2_000_000)}"}`, [413]],
  ['a strange address', 'GET', `/api/studies/${'%2e'.repeat(2000)}`, undefined, [400, 404, 414, 431]],
];

/** Requests made to hold up the server: each must be answered in time, and health meanwhile. */
export async function nastyRequests(data, patience = 1) {
  const server = await startServer(data);
  const faults = [];
  let slowest = { what: '', took: 0 };
  // what is measured is how the server holds, not how it wakes
  for (let i = 0; i < 50; i += 1) await send(server.address, 'GET', '/api/health');
  const stop = watchHealth(server.address, 5);
  try {
    for (const [what, method, path, body, wanted] of CASES)
      for (let again = 0; again < 5; again += 1) {
        const from = performance.now();
        const { status } = await send(server.address, method, path, body);
        const took = performance.now() - from;
        // the first of each warms up the thread that looks at studies
        if (again > 0 && took > slowest.took) slowest = { what, took };
        if (!wanted.includes(status)) faults.push(`${what} is answered ${status}`);
        if (again > 0 && took > 200 * patience) faults.push(`${what} took ${took.toFixed(0)} ms`);
      }
  } finally {
    const health = await stop();
    slowest = { ...slowest, health: percentile(health, 0.99), healthMost: health.at(-1) };
    await server.stop();
  }
  return { cases: CASES.length, slowest, faults };
}
