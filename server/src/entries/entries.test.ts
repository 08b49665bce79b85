import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { createServer } from '../create-server.ts';

const DEMO = join(__dirname, '../../../demo');
const SLUICE = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -sqrt(level)" },
  methods: [],
  ladder: { steps: [0.5, 'pi/8'] },
};

/** Seconds after which a job is ended. */
const JOB_LIMIT = 4;

let folder: string;
let app: NestExpressApplication;

async function start(demo: string | null): Promise<NestExpressApplication> {
  const started = await createServer({
    database: join(folder, 'schritt.sqlite'),
    demo,
    web: null,
    // threads run compiled files only
    jobs: { worker: join(__dirname, '../../dist/jobs/run-method.worker.js'), limit: JOB_LIMIT },
    logLevel: 'silent',
  });
  await started.init();
  return started;
}

const api = (): ReturnType<typeof request> => request(app.getHttpServer());

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
  app = await start(null);
});

afterEach(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

test('create, read, replace, delete; a stale replacement gets 409 with the present entry and changes nothing', async () => {
  const created = await api().post('/api/studies').send({ document: SLUICE }).expect(201);
  const { id } = created.body;
  expect(created.body).toMatchObject({ kind: 'study', version: 1, document: SLUICE });

  const first = { ...SLUICE, title: 'First' };
  const replaced = await api().put(`/api/studies/${id}`).send({ version: 1, document: first }).expect(200);
  expect(replaced.body).toMatchObject({ version: 2, document: { title: 'First' } });

  const stale = await api()
    .put(`/api/studies/${id}`)
    .send({ version: 1, document: { ...SLUICE, title: 'Second' } });
  expect(stale.body).toMatchObject({
    status: 409,
    code: 'stale-version',
    current: { version: 2, document: first },
  });
  await api()
    .get(`/api/studies/${id}`)
    .expect(200)
    .expect((r) => expect(r.body.document).toEqual(first));

  await api().delete(`/api/studies/${id}`).expect(204);
  await api().get(`/api/studies/${id}`).expect(404);
});

test.each([
  ['an unknown field', { document: { ...SLUICE, colour: 'red' } }, 'document.colour'],
  ['a wrong type', { document: { ...SLUICE, problem: { title: 'x', text: 3 } } }, 'document.problem.text'],
  ['a bad expression', { document: { ...SLUICE, ladder: { steps: ['pi/'] } } }, 'document.ladder.steps[0]'],
  ['another kind', { document: { schritt: 1, kind: 'method', title: 'M', text: '' } }, 'document.kind'],
  ['a field beside the document', { document: SLUICE, admin: true }, 'admin'],
])('%s is refused with its place', async (_, body, place) => {
  const answer = await api().post('/api/studies').send(body).expect(400);
  expect(answer.body).toMatchObject({ status: 400, code: 'bad-request' });
  expect(answer.body.faults.map((f: { place: string }) => f.place)).toContain(place);
});

test('bad JSON, strange ids, too much and unknown addresses get the typed body', async () => {
  const bad = await api().post('/api/methods').set('content-type', 'application/json').send('{"document":');
  expect(bad.body).toMatchObject({ status: 400, code: 'bad-request' });
  expect((await api().get("/api/studies/1' OR '1'='1")).body).toMatchObject({
    status: 404,
    code: 'not-found',
  });
  const large = await api()
    .post('/api/methods')
    .send({ document: 'x'.repeat(1_100_000) });
  expect(large.body).toMatchObject({ status: 413, code: 'too-large' });
  expect((await api().get('/api/nothing')).body).toMatchObject({ status: 404, code: 'not-found' });
});

test('demo data goes in once: a deleted study stays deleted, a changed one stays changed', async () => {
  await app.close();
  app = await start(DEMO);
  const list = (await api().get('/api/studies')).body;
  expect(list.length).toBeGreaterThanOrEqual(3);
  const [gone, changed] = list;
  await api().delete(`/api/studies/${gone.id}`).expect(204);
  const mine = { ...changed.document, title: 'My own' };
  await api().put(`/api/studies/${changed.id}`).send({ version: 1, document: mine }).expect(200);

  await app.close();
  app = await start(DEMO);
  const again = (await api().get('/api/studies')).body;
  expect(again).toHaveLength(list.length - 1);
  expect(again.find((e: { id: string }) => e.id === changed.id).document).toEqual(mine);
  expect(
    (await api().get('/api/methods')).body.map((e: { document: { title: string } }) => e.document.title),
  ).toContain('RK4');
});

test('health and the description of the interface', async () => {
  await api().get('/api/health').expect(200, { status: 'ok' });
  const description = await api().get('/api/docs-json').expect(200);
  expect(Object.keys(description.body.paths)).toEqual(
    expect.arrayContaining(['/api/studies', '/api/studies/{id}']),
  );
});
