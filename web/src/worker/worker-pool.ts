const ready: Worker[] = [];

function made(): Worker {
  return new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
}

/** Starts workers before they are asked anything: a first study does not wait until they are up. */
export function warmUp(count: number): void {
  while (ready.length < count) ready.push(made());
}

/** A worker that is up already, or a new one. */
export function acquireWorker(): Worker {
  return ready.shift() ?? made();
}
