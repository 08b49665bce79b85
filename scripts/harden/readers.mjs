import { connect } from 'node:net';
import { workerData, parentPort, Worker, isMainThread } from 'node:worker_threads';
import { percentile, send, startServer } from './server.mjs';

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

/** Bytes of an answer that begins like this; 0 while its head is not whole. */
function answerLength(buffer) {
  const head = buffer.indexOf('\r\n\r\n');
  if (head < 0) return 0;
  return head + 4 + Number(/content-length: (\d+)/i.exec(buffer.toString('latin1', 0, head))?.[1]);
}

/** Readers of one thread, each on a connection of its own: each asks again as soon as it is answered. */
async function read({ port, readers, seconds }) {
  const question = `GET /api/studies HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n\r\n`;
  const end = performance.now() + 1000 * seconds;
  const times = [];
  let errors = 0;
  const reader = () =>
    new Promise((done) => {
      const socket = connect(port, '127.0.0.1');
      let parts = [];
      let have = 0;
      let wanted = 0;
      let from = 0;
      const ask = () => {
        from = performance.now();
        socket.write(question);
      };
      socket.on('connect', ask);
      socket.on('error', () => {
        errors += 1;
        done();
      });
      socket.on('data', (part) => {
        parts.push(part);
        have += part.length;
        if (wanted === 0) {
          parts = [Buffer.concat(parts)];
          wanted = answerLength(parts[0]);
        }
        if (wanted === 0 || have < wanted) return;
        if (parts[0].toString('latin1', 0, 12) !== 'HTTP/1.1 200') errors += 1;
        times.push(performance.now() - from);
        [parts, have, wanted] = [[], 0, 0];
        if (performance.now() < end) ask();
        else {
          socket.end();
          done();
        }
      });
    });
  await Promise.all(Array.from({ length: readers }, reader));
  return { times, errors };
}

if (!isMainThread && workerData?.part === 'readers') parentPort.postMessage(await read(workerData));

/** Many readers on a list of a hundred studies at once; their own thread, so that they do not wait for one another's bookkeeping. */
export async function manyReaders(data, readers, seconds) {
  const server = await startServer(data, 4790);
  try {
    const { body } = await send(server.address, 'GET', '/api/studies');
    for (let i = body.total; i < 100; i += 1)
      await send(server.address, 'POST', '/api/studies', { document: STUDY(i) });
    const worker = new Worker(new URL(import.meta.url), {
      workerData: { part: 'readers', port: 4790, readers, seconds },
    });
    const { times, errors } = await new Promise((done, fail) => worker.on('message', done).on('error', fail));
    times.sort((a, b) => a - b);
    return {
      asked: times.length,
      errors,
      median: percentile(times, 0.5),
      p99: percentile(times, 0.99),
      most: times.at(-1),
    };
  } finally {
    await server.stop();
  }
}
