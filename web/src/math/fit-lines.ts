/** Smallest type of a formula that does not fit, as a part of the usual one. */
const SMALLEST = 0.6;

/** How much smaller a formula is set so that it fits; 1 where it does. */
export function fitting(width: number, room: number): number {
  return width <= room || room <= 0 ? 1 : Math.max(SMALLEST, room / width);
}

const waiting = new Map<HTMLElement, (scale: number) => void>();

/** Fits all that wait: written, read and written in turn, so that the page is laid out once and not once for each. */
function fitAll(): void {
  const lines = [...waiting];
  waiting.clear();
  for (const [line] of lines) line.style.fontSize = '';
  const scales = lines.map(([line]) => fitting(line.scrollWidth, line.clientWidth));
  for (const [i, [line, told]] of lines.entries()) {
    const scale = scales[i] ?? 1;
    // a part of the width does not shrink with the type, so a little less is taken
    if (scale < 1) line.style.fontSize = `${Math.max(SMALLEST, scale * 0.985) * 100}%`;
    told(scale);
  }
}

/** Sets a line smaller where it does not fit, together with all others that ask before the page is shown. */
export function fitLine(line: HTMLElement, told: (scale: number) => void): void {
  if (waiting.size === 0) queueMicrotask(fitAll);
  waiting.set(line, told);
}

const resized = new Map<Element, Set<() => void>>();
let observer: ResizeObserver | null = null;

function call(element: Element): void {
  for (const changed of resized.get(element) ?? []) changed();
}

/** One observer for all lines: what is asked of several of them in one frame is answered by one layout. */
function sharedObserver(): ResizeObserver {
  if (observer !== null) return observer;
  // fonts that come later are of another width; to wait for `fonts.ready` would lay out the page each time
  document.fonts.addEventListener('loadingdone', () => {
    for (const element of resized.keys()) call(element);
  });
  observer = new ResizeObserver((entries) => {
    for (const { target } of entries) call(target);
  });
  return observer;
}

/**
 * Calls back when an element has a size, whenever it has another one, and when fonts have come.
 *
 * @returns what ends it
 */
export function whenLaidOut(element: Element, changed: () => void): () => void {
  const all = resized.get(element) ?? new Set();
  resized.set(element, all.add(changed));
  // a known size is reported once more
  sharedObserver().unobserve(element);
  sharedObserver().observe(element);
  return () => {
    const left = resized.get(element);
    left?.delete(changed);
    if (left?.size !== 0) return;
    resized.delete(element);
    observer?.unobserve(element);
  };
}
