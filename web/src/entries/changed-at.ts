const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });
const DAY_AND_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** When something was changed, as one says it: the time of today, the day of this year, or the whole date. */
export function changedAt(iso: string, now: Date): string {
  const then = new Date(iso);
  if (Number.isNaN(then.getTime())) return '';
  if (then.toDateString() === now.toDateString()) return `today, ${TIME.format(then)}`;
  return (then.getFullYear() === now.getFullYear() ? DAY : DAY_AND_YEAR).format(then);
}
