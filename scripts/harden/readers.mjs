import { Agent, get } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import autocannon from 'autocannon';
import { startServer } from '../programs.mjs';
import { send } from './requests.mjs';

const STUDY = (i) => ({
  schritt: 1,
  kind: 'study',
  title: `Sluice ${i}`,
  problem: { title: 'Sluice', text: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6\n" },
  methods: Array.from({ length: 4 }, (_, k) => ({
    title: `M${k}`,
    text: `k1 = f(t, y)\ny[n+1] = y + h*k1\n${'# '.repeat(2000)}`,
  })),
  ladder: { counts: [4, 8, 16, 32] },
});

/**
 * Many readers on a list of a hundred studies at once, each asking again as soon as it is answered; times in
 * milliseconds.
 */
export async function manyReaders(data, readers, seconds) {
  const server = await startServer(data);
  try {
    const { body } = await send(server.address, 'GET', '/api/studies');
    for (let i = body.total; i < 100; i += 1)
      await send(server.address, 'POST', '/api/studies', { document: STUDY(i) });
    const { latency, errors, non2xx, requests } = await autocannon({
      url: `${server.address}/api/studies`,
      connections: readers,
      duration: seconds,
      workers: 1,
    });
    return {
      asked: requests.total,
      errors: errors + non2xx,
      median: latency.p50,
      p99: latency.p99,
      most: latency.max,
    };
  } finally {
    await server.stop();
  }
}

/** Asks as a browser does; fetch adds to a conditional request that it wants no answer from a cache. */
function asked(url, agent, headers) {
  return new Promise((done, fail) => {
    get(url, { agent, headers }, (answer) => {
      answer.resume();
      answer.on('end', () => done({ status: answer.statusCode, etag: answer.headers.etag }));
    }).on('error', fail);
  });
}

/**
 * A class at one shared study: many readers, each of whom asks once a second, after the first time with what names the study that they have
 * already; times in milliseconds.
 */
export async function sharedReaders(data, readers, seconds) {
  const server = await startServer(data);
  try {
    const { body: made } = await send(server.address, 'POST', '/api/studies', { document: STUDY(0) });
    const { body: link } = await send(server.address, 'POST', `/api/studies/${made.id}/shown`);
    const url = `${server.address}/api/shown/${link.shownAt}`;
    const agent = new Agent({ keepAlive: true, maxSockets: readers });
    // a server that has just started compiles what it answers with
    for (let i = 0; i < 300; i += 1) await asked(url, agent, {});
    const times = [];
    let [errors, unchanged] = [0, 0];
    const read = async (reader) => {
      let etag = null;
      await pause((1000 * reader) / readers);
      for (let i = 0; i < seconds; i += 1) {
        const from = performance.now();
        try {
          const answer = await asked(url, agent, etag === null ? {} : { 'if-none-match': etag });
          if (answer.status === 304) unchanged += 1;
          else if (answer.status !== 200) errors += 1;
          etag = answer.etag ?? null;
        } catch {
          errors += 1;
        }
        const took = performance.now() - from;
        times.push(took);
        await pause(1000 - took);
      }
    };
    await Promise.all(Array.from({ length: readers }, (_, reader) => read(reader)));
    times.sort((a, b) => a - b);
    const at = (part) => times[Math.floor(part * (times.length - 1))];
    return { asked: times.length, unchanged, errors, median: at(0.5), p99: at(0.99), most: at(1) };
  } finally {
    await server.stop();
  }
}
