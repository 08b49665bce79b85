import type { KeyboardEvent } from 'react';

/** What in a row can have the focus, besides the row itself. */
const CONTROLS = 'a[href], button, input';

function stopsOf(row: HTMLElement): readonly HTMLElement[] {
  const controls = [...row.querySelectorAll<HTMLElement>(CONTROLS)];
  return row.tabIndex < 0 ? controls : [row, ...controls];
}

function neighbour(row: HTMLElement, way: 'ArrowUp' | 'ArrowDown'): HTMLElement | null {
  const next = way === 'ArrowUp' ? row.previousElementSibling : row.nextElementSibling;
  return next instanceof HTMLElement ? next : null;
}

/**
 * Moves the focus within the rows of a table, each of which is one stop of the tab key: left and right among what can be
 * done with a row, up and down to the same of the next row, Escape back to the first. A handler of `keydown` for a row.
 */
export function moveInRows(event: KeyboardEvent<HTMLElement>): void {
  const row = event.currentTarget;
  const { target, key } = event;
  if (!(target instanceof HTMLElement) || event.ctrlKey || event.metaKey || event.altKey) return;
  const stops = stopsOf(row);
  const place = stops.indexOf(target);
  if (place < 0) return;
  const next = ((): HTMLElement | null | undefined => {
    switch (key) {
      case 'ArrowLeft':
        return stops[Math.max(0, place - 1)];
      case 'ArrowRight':
        return stops[Math.min(stops.length - 1, place + 1)];
      case 'ArrowUp':
      case 'ArrowDown': {
        const other = neighbour(row, key);
        const places = other === null ? [] : stopsOf(other);
        return places[Math.min(place, places.length - 1)];
      }
      case 'Escape':
        return place === 0 ? null : stops[0];
      default:
        return null;
    }
  })();
  if (next === null) return;
  event.preventDefault();
  event.stopPropagation();
  next?.focus();
}
