import type { RunToDraw } from '@schritt/core/study';
import type { ChosenStep } from './study-state.ts';
import type { View } from './view.ts';

/**
 * The runs that plots show: of every method at the chosen step size; or, where further rungs are ticked, of one
 * method at those and at the chosen one, coarse ones first.
 */
export function drawnRuns(
  methods: number,
  { rungs, grid }: Pick<ChosenStep, 'rungs' | 'grid'>,
  { ticked, method }: Pick<View, 'ticked' | 'method'>,
): readonly RunToDraw[] | null {
  if (grid === null || methods === 0) return null;
  const others = ticked.flatMap((index) => {
    const rung = rungs[index];
    return rung?.ok === true ? [rung.grid.wished] : [];
  });
  if (others.length === 0)
    return Array.from({ length: methods }, (_, i) => ({ method: i, gridRequest: { h: grid.wished } }));
  const sizes = [...new Set([...others, grid.wished])].sort((a, b) => b - a);
  return sizes.map((h) => ({ method: Math.min(method, methods - 1), gridRequest: { h } }));
}
