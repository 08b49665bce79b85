/** Milliseconds between two signs of life, and before the first. */
const SIGN = 500;

/**
 * Pulls a piece of work to its end; on a terminal a line on standard error says how far it is, and goes when it is done.
 * Ctrl+C ends it.
 */
export function withProgress<T>(work: Generator<{ readonly part: number }, T>): T {
  const { stderr } = process;
  let last = Date.now();
  let shown = false;
  for (;;) {
    const next = work.next();
    if (next.done === true) {
      if (shown) stderr.write('\r\u001b[K');
      return next.value;
    }
    if (!stderr.isTTY || Date.now() - last < SIGN) continue;
    last = Date.now();
    shown = true;
    stderr.write(`\r${Math.floor(100 * next.value.part)} %`);
  }
}
