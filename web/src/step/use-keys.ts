import { useEffect } from 'react';
import type { StoreApi } from 'zustand';
import type { StudyState } from '../state/study-state.ts';
import { type PlotPanelName, PANELS, USUAL_PANELS } from '../state/view.ts';
import { toggled } from './class-panels.tsx';

/** The keys of the page and what they do, for the list of them. */
export const KEYS: readonly { readonly keys: string; readonly says: string }[] = [
  { keys: '1  2  3', says: 'study, run, step' },
  { keys: '←  →', says: 'run, step: previous and next step' },
  { keys: '↑  ↓', says: 'step: previous and next method' },
  { keys: 'space', says: 'step: play it line by line' },
  { keys: 'Escape', says: 'step: all lines; text: done' },
  { keys: 'Ctrl+Enter', says: 'text: done, also while suggestions are shown' },
  { keys: 'Home  End  ← →', says: 'ruler: smallest, largest, smaller, larger h' },
  { keys: 'Shift ← →', says: 'ruler: one step more or less' },
  { keys: 'Tab  Ctrl+Space', says: 'text: accept or show suggestions' },
  {
    keys: 'o v a e f q d g',
    says: 'main plot: order, work, solution, error, phase, profile, invariants, direction field',
  },
  { keys: 'Enter  ← → ↑ ↓', says: 'table, list: choose the row, move to what can be done with it' },
  { keys: '+  −  0', says: 'plot: zoom in, zoom out, reset zoom' },
  { keys: 't  Enter  Delete', says: 'ruler: draw this h too, add it, remove it' },
  { keys: 's', says: 'hide or show the panel on the left' },
  { keys: 'c', says: 'presentation view on or off; there p, r, w: second plot, table, findings' },
  { keys: 'Ctrl+Z  Ctrl+Shift+Z', says: 'undo, redo' },
  { keys: 'F1', says: 'text: notation by example' },
  { keys: '?', says: 'this list' },
];

const PLOT_PANEL_KEYS: Readonly<Record<string, PlotPanelName>> = {
  o: 'order',
  v: 'cost',
  a: 'solution',
  e: 'error',
  f: 'phase',
  q: 'profile',
  d: 'conserved',
  g: 'slopes',
};

/** The plot panel that a key chooses; null for none. */
export function panelByKey(key: string): PlotPanelName | null {
  return Object.hasOwn(PLOT_PANEL_KEYS, key) ? (PLOT_PANEL_KEYS[key] ?? null) : null;
}

/** Whether a key belongs to what has the focus: a field, a text, the ruler, a dialog, a button for the space bar. */
function isShortcut(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return true;
  const { target } = event;
  if (!(target instanceof Element)) return false;
  if (
    target.closest(
      'input, textarea, select, [contenteditable="true"], [role="slider"], [role="combobox"], dialog, [role="dialog"]',
    ) !== null
  )
    return true;
  return event.key === ' ' && target.closest('button, a, [role="tab"]') !== null;
}

/** Listens to the keys of the page. */
export function useKeys(store: StoreApi<StudyState>, lines: number, showKeys: () => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (isShortcut(event)) return;
      const { view, setView, chosen, played, setPlayed, good } = store.getState();
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
          case 's':
            setView({ folded: !view.folded });
            return true;
          case '?':
            showKeys();
            return true;
        }
        const panel = PANELS.find(({ key }) => key === event.key);
        if (view.inClass && panel !== undefined) {
          setView({ panels: toggled(view.panels ?? USUAL_PANELS[view.depth], panel.name) });
          return true;
        }
        const plotPanel = panelByKey(event.key);
        if (plotPanel !== null) {
          setView({ large: plotPanel });
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
  }, [store, lines, showKeys]);
}
