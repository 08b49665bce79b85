/** Sends JSON and answers status and body. */
export async function send(address, method, path, body) {
  const response = await fetch(address + path, {
    method,
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  });
  const text = await response.text();
  const isJson = (response.headers.get('content-type') ?? '').startsWith('application/json');
  return { status: response.status, body: isJson ? JSON.parse(text) : text };
}

/** How long the server takes to answer whether it is there, asked again and again until `stop`. */
export function watchHealth(address, every = 20) {
  const times = [];
  let on = true;
  const run = (async () => {
    while (on) {
      const from = performance.now();
      try {
        const { ok } = await fetch(`${address}/api/health`);
        times.push(ok ? performance.now() - from : Infinity);
      } catch {
        times.push(Infinity);
      }
      await new Promise((done) => setTimeout(done, every));
    }
  })();
  return async () => {
    on = false;
    await run;
    return times.sort((a, b) => a - b);
  };
}

export function percentile(sorted, part) {
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN;
}
