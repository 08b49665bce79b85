/** Something that was done, or could not be. */
export interface Notice {
  readonly id: number;
  readonly kind: 'done' | 'failed';
  readonly text: string;
  /** What a person can do about it; the notice goes with it. */
  readonly act: { readonly label: string; readonly run: () => void } | null;
}

/** How long a notice stays, in ms. */
const STAYS = 8000;

let notices: readonly Notice[] = [];
let last = 0;
const watching = new Set<() => void>();

function change(next: readonly Notice[]): void {
  notices = next;
  for (const changed of watching) changed();
}

/** The notices that stand there now, the oldest first. */
export function standingNotices(): readonly Notice[] {
  return notices;
}

/** Calls a function whenever notices come or go, until the returned one is called. */
export function watchNotices(changed: () => void): () => void {
  watching.add(changed);
  return () => watching.delete(changed);
}

/** Takes a notice away before its time. */
export function dropNotice(id: number): void {
  change(notices.filter((one) => one.id !== id));
}

function tell(kind: Notice['kind'], text: string, act: Notice['act']): void {
  last += 1;
  const id = last;
  change([...notices, { id, kind, text, act }]);
  setTimeout(() => dropNotice(id), STAYS);
}

/** Says that something was done; it may be undone where there is a way. */
export function tellDone(text: string, act: Notice['act'] = null): void {
  tell('done', text, act);
}

/** Says what could not be done, in the words of an error or of its own, and what can be done about it. */
export function tellFailed(why: unknown, act: Notice['act'] = null): void {
  tell('failed', why instanceof Error ? why.message : String(why), act);
}

/** Something to do at a click, which says so where it fails. */
export function told(work: () => Promise<void>): () => void {
  return () => void work().catch(tellFailed);
}
