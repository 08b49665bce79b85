import { useEffect } from 'react';
import type { Desk } from '../desk/desk.ts';

/** The keys of the page and what they do, for the list of them. */
export const KEYS: readonly { readonly keys: string; readonly says: string }[] = [
  { keys: '1  2  3', says: 'study, run, step' },
  { keys: '←  →', says: 'in a run or step: the step before, the next one' },
  { keys: '↑  ↓', says: 'in a step: the method before, the next one' },
  { keys: 'space', says: 'in a step: play it, line by line' },
  { keys: 'Escape', says: 'all lines of the step; out of a text: done' },
  { keys: 'Home  End  ← →', says: 'on the ruler: finest, coarsest, finer, coarser rung' },
  { keys: 'Shift ← →', says: 'on the ruler: one step more, one step less' },
  { keys: 'Tab  Ctrl+Space', says: 'in a text: take what is offered, ask for it' },
  { keys: 'c', says: 'class view, and back' },
  { keys: '?', says: 'this list' },
];

/** Whether a key belongs to what has the focus: a field, a text, the ruler, a button for the space bar. */
function isTaken(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return true;
  const { target } = event;
  if (!(target instanceof Element)) return false;
  if (
    target.closest(
      'input, textarea, select, [contenteditable="true"], [role="slider"], [role="combobox"]',
    ) !== null
  )
    return true;
  return event.key === ' ' && target.closest('button, a, [role="tab"]') !== null;
}

/** Listens to the keys of the page. */
export function useKeys(desk: Desk, lines: number, showKeys: () => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (isTaken(event)) return;
      const { view, setView, chosen, played, setPlayed, good } = desk;
      const last = Math.max(0, (chosen.grid?.steps ?? 1) - 1);
      const act = (): boolean => {
        switch (event.key) {
          case '1':
          case '2':
          case '3':
            setView({
              depth: event.key === '1' ? 'study' : event.key === '2' ? 'run' : 'step',
              large: null,
              beside: null,
            });
            return true;
          case 'c':
            setView({ inClass: !view.inClass });
            return true;
          case '?':
            showKeys();
            return true;
        }
        if (view.depth !== 'step') return false;
        switch (event.key) {
          case 'ArrowLeft':
          case 'ArrowRight':
            setView({ n: Math.min(last, Math.max(0, view.n + (event.key === 'ArrowLeft' ? -1 : 1))) });
            setPlayed(null);
            return true;
          case 'ArrowUp':
          case 'ArrowDown': {
            const many = Math.max(1, good.keys.length);
            setView({ method: (view.method + (event.key === 'ArrowUp' ? many - 1 : 1)) % many });
            setPlayed(null);
            return true;
          }
          case ' ':
            setPlayed(played === null || played >= lines ? 1 : played + 1);
            return true;
          case 'Escape':
            setPlayed(null);
            return true;
          default:
            return false;
        }
      };
      if (act()) event.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [desk, lines, showKeys]);
}
