import { lazily } from '@schritt/core/text';

function lazyFormat(options: Intl.DateTimeFormatOptions): () => Intl.DateTimeFormat {
  // a format of dates takes longer to make than a page of them to write
  return lazily(() => new Intl.DateTimeFormat('en-GB', options));
}

const time = lazyFormat({ hour: '2-digit', minute: '2-digit' });
const day = lazyFormat({ day: 'numeric', month: 'long' });
const dayAndYear = lazyFormat({ day: 'numeric', month: 'long', year: 'numeric' });
const dayAndTime = lazyFormat({ dateStyle: 'medium', timeStyle: 'short' });

/** When something was changed, as one says it: the time of today, the day of this year, or the whole date. */
export function changedAt(iso: string, now: Date): string {
  const then = new Date(iso);
  if (Number.isNaN(then.getTime())) return '';
  if (then.toDateString() === now.toDateString()) return `today, ${time().format(then)}`;
  return (then.getFullYear() === now.getFullYear() ? day : dayAndYear)().format(then);
}

/**
 * A moment with its day and its time: 3 Dec 2026, 09:15.
 *
 * @param at milliseconds since 1970
 */
export function momentText(at: number): string {
  return dayAndTime().format(at);
}
