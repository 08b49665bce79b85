import { random } from './random.mjs';
import { startServer } from '../programs.mjs';
import { send } from './requests.mjs';

const STUDY = (title) => ({
  schritt: 1,
  kind: 'study',
  title,
  problem: { title: 'Sluice', text: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6\n" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [4, 8] },
});

/** Saves again and again while the server is killed at random moments; what it acknowledged must be there. */
export async function killServer(data, kills, seed) {
  const r = random(seed);
  let saves = 0;
  let lost = 0;
  let slowest = 0;
  const last = new Map();
  for (let k = 0; k < kills; k += 1) {
    const from = performance.now();
    const server = await startServer(data);
    slowest = Math.max(slowest, performance.now() - from);
    for (const [id, { version, title }] of last) {
      const { status, body } = await send(server.address, 'GET', `/api/studies/${id}`).catch(async (why) => {
        await server.stop('SIGKILL');
        throw new Error(`the server does not answer: ${server.said().slice(-2000)}`, { cause: why });
      });
      // a save that was under way may have come through as well
      const isThere = status === 200 && (body.version > version || body.document.title === title);
      if (!isThere) lost += 1;
      last.set(id, { version: body.version, title: body.document?.title });
    }
    let on = true;
    const writer = async (w) => {
      for (let i = 0; on; i += 1)
        try {
          const ids = [...last.keys()];
          if (ids.length < 20 || i % 10 === 0) {
            const { status, body } = await send(server.address, 'POST', '/api/studies', {
              document: STUDY(`new ${k} ${w} ${i}`),
            });
            if (status !== 201) continue;
            saves += 1;
            last.set(body.id, { version: 1, title: body.document.title });
          } else {
            const id = ids[(w + 4 * i) % ids.length];
            const { version } = last.get(id);
            const { status, body } = await send(server.address, 'PUT', `/api/studies/${id}`, {
              version,
              document: STUDY(`changed ${k} ${w} ${i}`),
            });
            if (status === 409)
              last.set(id, { version: body.current.version, title: body.current.document.title });
            if (status !== 200) continue;
            saves += 1;
            const known = last.get(id);
            if (body.version > known.version)
              last.set(id, { version: body.version, title: body.document.title });
          }
        } catch {
          // the server was killed while it was asked
        }
    };
    const writers = [0, 1, 2, 3].map(writer);
    await new Promise((done) => setTimeout(done, 100 + 500 * r.next()));
    on = false;
    await server.stop('SIGKILL');
    await Promise.all(writers);
  }
  const server = await startServer(data);
  for (const [id, { version }] of last) {
    const { body } = await send(server.address, 'GET', `/api/studies/${id}`);
    if (!(body.version >= version)) lost += 1;
  }
  await server.stop();
  return { kills, saves, lost, slowest };
}
