/** Milliseconds after which it is done where a browser does not tell when it is idle. */
const SOON = 1_000;

/** Does something while the page has nothing else to do; what it answers takes that back. */
export function whenIdle(work: () => void): () => void {
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(work, SOON);
    return () => clearTimeout(timer);
  }
  const handle = requestIdleCallback(work);
  return () => cancelIdleCallback(handle);
}
