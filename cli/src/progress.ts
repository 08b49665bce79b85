/** Milliseconds between two progress reports, and before the first. */
const SIGN = 500;

/**
 * A line on standard error that says how far a piece of work is, on a terminal alone; it goes when the work is done.
 */
function progressLine(): { readonly tell: (part: number) => void; readonly end: () => void } {
  const { stderr } = process;
  let last = Date.now();
  let shown = false;
  return {
    tell: (part) => {
      if (!stderr.isTTY || Date.now() - last < SIGN) return;
      last = Date.now();
      shown = true;
      stderr.write(`\r${Math.floor(100 * part)} %`);
    },
    end: () => {
      if (shown) stderr.write('\r\u001b[K');
    },
  };
}

/** Pulls a piece of work to its end and says how far it is. Ctrl+C ends it. */
export function withProgress<T>(work: Generator<number | { readonly part: number }, T>): T {
  const line = progressLine();
  for (;;) {
    const next = work.next();
    if (next.done === true) {
      line.end();
      return next.value;
    }
    line.tell(typeof next.value === 'number' ? next.value : next.value.part);
  }
}

/** Hands parts on and says how many of them are there. Ctrl+C ends it. */
export function* counted<T>(parts: Iterable<T>, total: number): Generator<T> {
  const line = progressLine();
  let done = 0;
  for (const part of parts) {
    yield part;
    done += 1;
    line.tell(done / total);
  }
  line.end();
}
