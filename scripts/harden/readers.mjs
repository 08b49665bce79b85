import autocannon from 'autocannon';
import { send, startServer } from './server.mjs';

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
  const server = await startServer(data, 4790);
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
