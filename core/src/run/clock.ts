// pages, workers and Node all have it, and the core is built without the types of any of them
declare const performance: { now(): number };

/** Seconds since some moment, for lengths of time. */
export function seconds(): number {
  return performance.now() / 1000;
}
