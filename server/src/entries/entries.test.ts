import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import Database from 'better-sqlite3';
import request from 'supertest';
import { testServer } from '../test-server.ts';

const DEMO = join(__dirname, '../../../demo');
const SLUICE = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -sqrt(level)" },
  methods: [],
  ladder: { sizes: [0.5, 'pi/8'] },
};

let folder: string;
let app: NestExpressApplication;

async function start(demo: string | null): Promise<NestExpressApplication> {
  const started = await testServer(folder, { demo });
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

test('a study in an older way of writing is answered in the present one', async () => {
  const older = { ...SLUICE, ladder: { steps: [0.5, 'pi/8'] } };
  const created = await api().post('/api/studies').send({ document: older }).expect(201);
  expect(created.body.document).toEqual(SLUICE);
  const read = await api().get(`/api/studies/${created.body.id}`).expect(200);
  expect(read.body.document).toEqual(SLUICE);
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
  ['a bad expression', { document: { ...SLUICE, ladder: { steps: ['pi/'] } } }, 'document.ladder.steps'],
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
  const { entries: list, total } = (await api().get('/api/studies')).body;
  expect(total).toBeGreaterThanOrEqual(3);
  const [gone, changed] = list;
  await api().delete(`/api/studies/${gone.id}`).expect(204);
  const { document } = (await api().get(`/api/studies/${changed.id}`)).body;
  const mine = { ...document, title: 'My own' };
  await api().put(`/api/studies/${changed.id}`).send({ version: 1, document: mine }).expect(200);

  await app.close();
  app = await start(DEMO);
  const again = (await api().get('/api/studies')).body;
  expect(again.total).toBe(total - 1);
  expect((await api().get(`/api/studies/${changed.id}`)).body.document).toEqual(mine);
  const methods = (await api().get('/api/methods?count=200')).body.entries;
  expect(methods.map((e: { title: string }) => e.title)).toContain('RK4');
});

describe('a list', () => {
  const method = (i: number) => ({
    schritt: 1,
    kind: 'method',
    title: `Method ${i}`,
    text: `k1 = f(t, y)\n${'#'.repeat(1300)}\ny[n+1] = y + h*k1`,
  });

  test('is answered in parts, without bodies, and follows what is written', async () => {
    for (let i = 0; i < 5; i += 1)
      await api()
        .post('/api/methods')
        .send({ document: method(i) })
        .expect(201);
    const part = (await api().get('/api/methods?from=1&count=2')).body;
    expect(part.total).toBe(5);
    expect(part.entries.map((e: { title: string }) => e.title)).toEqual(['Method 3', 'Method 2']);
    expect(part.entries[0].excerpt).toHaveLength(1200);
    expect(part.entries[0].document).toBeUndefined();
    await api().delete(`/api/methods/${part.entries[0].id}`).expect(204);
    const next = (await api().get('/api/methods?from=1&count=2')).body;
    expect(next.entries.map((e: { title: string }) => e.title)).toEqual(['Method 2', 'Method 1']);
  });

  test('begins with what was changed last', async () => {
    const made: { id: string; version: number }[] = [];
    for (let i = 0; i < 3; i += 1)
      made.push(
        (
          await api()
            .post('/api/methods')
            .send({ document: method(i) })
        ).body,
      );
    await api()
      .put(`/api/methods/${made[0]?.id}`)
      .send({ version: 1, document: { ...method(0), title: 'Mended' } })
      .expect(200);
    expect(await titlesOf('/api/methods')).toEqual(['Mended', 'Method 2', 'Method 1']);
  });

  test.each(['from=-1', 'count=0', 'count=201', 'count=x', 'from=1e9', 'colour=red', 'bin=2'])(
    'refuses %s with its place',
    async (query) => {
      const { body } = await api().get(`/api/methods?${query}`).expect(400);
      expect(body).toMatchObject({ code: 'bad-request', faults: [{ place: query.split('=')[0] }] });
    },
  );

  test('names the first methods of a study', async () => {
    const methods = Array.from({ length: 8 }, (_, i) => ({ title: `M${i}`, text: '' }));
    await api()
      .post('/api/studies')
      .send({ document: { ...SLUICE, methods } })
      .expect(201);
    const [row] = (await api().get('/api/studies')).body.entries;
    expect(row).toMatchObject({ title: 'Sluice', excerpt: "level' = -sqrt(level)" });
    expect(row.methods).toEqual(['M0', 'M1', 'M2', 'M3', 'M4', 'M5']);
  });
});

async function titlesOf(path: string): Promise<readonly string[]> {
  const { body } = await api().get(path).expect(200);
  return body.entries.map(({ title }: { title: string }) => title);
}

test('what is deleted lies in the bin: it is restored as it was, or deleted permanently by a request of its own', async () => {
  const make = async (title: string): Promise<{ id: string; updatedAt: string }> =>
    (
      await api()
        .post('/api/studies')
        .send({ document: { ...SLUICE, title } })
    ).body;
  const [first, second] = [await make('First'), await make('Second')];
  await api().post(`/api/studies/${first.id}/shown`).expect(200);
  await api().post(`/api/studies/${first.id}/restored`).expect(204);
  await api().delete(`/api/studies/${first.id}`).expect(204);
  expect(await titlesOf('/api/studies')).toEqual(['Second']);
  expect(await titlesOf('/api/studies?bin=true')).toEqual(['First']);
  await api().get(`/api/studies/${first.id}`).expect(404);
  await api().put(`/api/studies/${first.id}`).send({ version: 1, document: SLUICE }).expect(404);
  await api().post(`/api/problems/${first.id}/restored`).expect(404);

  await api().post(`/api/studies/${first.id}/restored`).expect(204);
  const back = (await api().get(`/api/studies/${first.id}`).expect(200)).body;
  expect(back).toMatchObject({ version: 1, updatedAt: first.updatedAt, shownAt: null });
  expect(await titlesOf('/api/studies')).toEqual(['Second', 'First']);

  await api().delete(`/api/studies/${second.id}/permanently`).expect(409);
  expect(await titlesOf('/api/studies')).toEqual(['Second', 'First']);
  await api().delete(`/api/studies/${second.id}`).expect(204);
  await api().delete(`/api/studies/${second.id}/permanently`).expect(204);
  expect(await titlesOf('/api/studies?bin=true')).toEqual([]);
  await api().delete(`/api/studies/${second.id}/permanently`).expect(404);
  await api().delete(`/api/studies/${second.id}`).expect(404);
});

test('deleting and restoring any number of times, also at once, destroys nothing', async () => {
  const { id } = (await api().post('/api/studies').send({ document: SLUICE })).body;
  const all = await Promise.all(Array.from({ length: 12 }, () => api().delete(`/api/studies/${id}`)));
  expect(all.map(({ status }) => status)).toEqual(Array.from({ length: 12 }, () => 204));
  for (let i = 0; i < 2; i += 1) await api().post(`/api/studies/${id}/restored`).expect(204);
  const back = (await api().get(`/api/studies/${id}`).expect(200)).body;
  expect(back).toMatchObject({ version: 1, document: SLUICE });
});

test('one damaged row hides itself alone: it is reported, can be saved as it is, and deleted', async () => {
  const ids: string[] = [];
  for (const title of ['A', 'B'])
    ids.push(
      (
        await api()
          .post('/api/studies')
          .send({ document: { ...SLUICE, title } })
      ).body.id,
    );
  await app.close();
  const store = new Database(join(folder, 'schritt.sqlite'));
  store
    .prepare('UPDATE entries SET document = ?, methods = ? WHERE id = ?')
    .run('{"schritt": 1, "ki', 'x', ids[0]);
  store.close();
  app = await start(null);
  expect((await api().get('/api/studies').expect(200)).body.total).toBe(2);
  expect((await api().get(`/api/studies/${ids[0]}`).expect(500)).body).toMatchObject({ code: 'damaged' });
  await api().get(`/api/studies/${ids[1]}`).expect(200);
  const { body } = await api().get(`/api/studies/${ids[0]}/file`).expect(200);
  expect(String(body)).toBe('{"schritt": 1, "ki');
  await api().delete(`/api/studies/${ids[0]}`).expect(204);
  expect((await api().get('/api/studies')).body.total).toBe(1);
});

test('a browser that has a shared study gets an answer without a body, until the study changes or is no longer shared', async () => {
  const { id } = (await api().post('/api/studies').send({ document: SLUICE }).expect(201)).body;
  const { shownAt } = (await api().post(`/api/studies/${id}/shown`).expect(200)).body;
  const first = await api().get(`/api/shown/${shownAt}`).expect(200);
  const { etag = '' } = first.headers;
  expect(first.headers['cache-control']).toBe('private, no-cache');
  const again = await api().get(`/api/shown/${shownAt}`).set('If-None-Match', etag).expect(304);
  expect(again.text).toBe('');
  const changed = { ...SLUICE, title: 'Another' };
  await api().put(`/api/studies/${id}`).send({ document: changed, version: 1 }).expect(200);
  const next = await api().get(`/api/shown/${shownAt}`).set('If-None-Match', etag).expect(200);
  expect(next.body.document.title).toBe('Another');
  await api().delete(`/api/studies/${id}/shown`).expect(204);
  await api()
    .get(`/api/shown/${shownAt}`)
    .set('If-None-Match', next.headers['etag'] ?? '')
    .expect(404);
});

test('a study is shown at a link that cannot be guessed, until its owner ends that; its version stays', async () => {
  const { id } = (await api().post('/api/studies').send({ document: SLUICE })).body;
  const { shownAt } = (await api().post(`/api/studies/${id}/shown`).expect(200)).body;
  expect(shownAt).toMatch(/^[\w-]{24}$/);
  expect((await api().post(`/api/studies/${id}/shown`)).body.shownAt).toBe(shownAt);
  expect((await api().get(`/api/shown/${shownAt}`).expect(200)).body).toEqual({ document: SLUICE });
  expect((await api().get(`/api/studies/${id}`)).body).toMatchObject({ version: 1, shownAt });
  await api().get('/api/shown/nothing').expect(404);
  await api().delete(`/api/studies/${id}/shown`).expect(204);
  await api().get(`/api/shown/${shownAt}`).expect(404);
});

test('health and the description of the interface', async () => {
  await api().get('/api/health').expect(200, { status: 'ok', queue: 'none', workers: null });
  const description = await api().get('/api/docs-json').expect(200);
  expect(Object.keys(description.body.paths)).toEqual(
    expect.arrayContaining(['/api/studies', '/api/studies/{id}']),
  );
});

test('tables of a stored study are answered as files, and nothing typed becomes a page', async () => {
  const study = {
    ...SLUICE,
    title: '<script>alert(1)</script>',
    problem: { title: 'Sluice', text: "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)" },
    methods: [{ title: '=Euler', text: 'y[n+1] = y + h*f(t, y)' }],
    ladder: { counts: [2, 4] },
  };
  const { id } = (await api().post('/api/studies').send({ document: study }).expect(201)).body;
  const table = async (name: string): Promise<{ readonly text: string; readonly kind: string }> => {
    const { text, headers } = await api().get(`/api/studies/${id}/tables/${name}`).buffer(true).expect(200);
    return {
      text,
      kind: [headers['content-type'], headers['content-disposition']].join('; '),
    };
  };
  const rungs = await table('rungs/csv');
  expect(rungs.kind).toBe('text/csv; charset=utf-8; attachment; filename=script-alert-1-script-rungs.csv');
  // (1 - 1/2)^2 and (1 - 1/4)^4 against exp(-1)
  const errors = rungs.text
    .split('\r\n')
    .slice(1, 3)
    .map((line) => Number(line.split(',')[2]));
  expect(errors[0]).toBeCloseTo(Math.exp(-1) - 1 / 4, 14);
  expect(errors[1]).toBeCloseTo(Math.exp(-1) - (3 / 4) ** 4, 14);
  const page = await table('cost/html');
  expect(page.text).not.toContain('<script>');
  expect(page.text).toContain('&#60;script&#62;');
  const taken = (name: string): request.Test => api().get(`/api/studies/${id}/taken/${name}`).buffer(true);
  const program = await taken('program/py?method==Euler&steps=4').expect(200);
  expect(program.headers['content-disposition']).toBe(
    'attachment; filename=script-alert-1-script-program.py',
  );
  const matlab = await taken('program/m?method==Euler&steps=4').expect(200);
  expect(matlab.headers['content-disposition']).toBe('attachment; filename=program.m');
  const png = await taken('plot/png').expect(200);
  expect(png.headers['content-type']).toBe('image/png');
  const foreign = await taken('program/py?method==Euler&steps=4&digits=3').expect(400);
  expect(JSON.stringify(foreign.body)).toContain('digits does not apply to program');
  expect(program.text).toContain('def step(');
  const sheet = await taken('sheet/xlsx').responseType('blob').expect(200);
  // a file of Office Open XML is a zip
  expect(String(sheet.body).slice(0, 2)).toBe('PK');
  const handout = await taken('handout/html?key=true').expect(200);
  expect(handout.text).toContain('class="answer"');
  expect(handout.text).not.toContain('<script>');
  const unknown = await taken('program/c?method=Heun&steps=4').expect(400);
  expect(JSON.stringify(unknown.body)).toContain('there is no method');
  await taken('plot/svg?size=huge').expect(400);
  const wrong = await api().get(`/api/studies/${id}/tables/rows/csv`).expect(400);
  expect(JSON.stringify(wrong.body)).toContain('the table must be one of rungs, cost, comparison');
});
