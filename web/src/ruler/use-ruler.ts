import type { KeyboardEvent, MouseEvent, PointerEvent } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { withoutRungAt, withRungOf } from '../state/working-study.ts';
import type { RulerLayout } from './ruler-layout.ts';
import { placeOfSize, sizeAtPlace } from './scale.ts';

/** Pixels within which the handle falls on a peg. */
const NEAR = 7;

/** What can be done on the ruler. */
export interface RulerActions {
  readonly press: (event: KeyboardEvent) => void;
  readonly drag: (event: PointerEvent<SVGSVGElement>) => void;
  readonly add: (event: MouseEvent<SVGSVGElement>) => void;
  /** Draws the run of a step size together with the chosen one, or no longer. */
  readonly tick: (rung: number) => void;
  readonly remove: (rung: number) => void;
}

function placeOf(event: MouseEvent<SVGSVGElement>): number {
  return event.clientX - event.currentTarget.getBoundingClientRect().left;
}

/** Chooses, adds and removes step sizes on a ruler. */
export function useRuler({ scale, order, now }: RulerLayout, length: number): RulerActions {
  const { chosen, view, setView, edit } = useStudyState('chosen', 'view', 'setView', 'edit');
  const { choose, chooseSteps, addAsRung } = chosen;
  const near = (x: number): RulerLayout['order'][number] | undefined =>
    order.find(({ grid }) => Math.abs(placeOfSize(scale, grid.h) - x) <= NEAR);
  const stepsAt = (x: number): number => Math.max(1, Math.round(length / sizeAtPlace(scale, x)));
  const toSteps = (steps: number): void => {
    const mark = order.find(({ grid }) => grid.steps === steps);
    if (mark !== undefined) choose(mark.index);
    else if (steps >= 1 && steps !== now.steps) chooseSteps(steps);
  };
  const tick = (rung: number): void => {
    const { ticked } = view;
    const next = ticked.includes(rung) ? ticked.filter((one) => one !== rung) : [...ticked, rung];
    setView({ ticked: next.sort((a, b) => a - b) });
  };
  const remove = (rung: number): void => {
    const left = view.ticked.flatMap((one) => (one === rung ? [] : [one > rung ? one - 1 : one]));
    setView({ ticked: left });
    edit('ladder', (study) => withoutRungAt(study, rung));
  };
  /** The place among the pegs to which a key goes; null for another key. */
  const goalOf = (key: string): number | null => {
    switch (key) {
      case 'Home':
        return 0;
      case 'End':
        return order.length - 1;
      case 'ArrowRight':
      case 'ArrowUp':
        return order.findIndex(({ grid }) => grid.h > now.h * (1 + 1e-9));
      case 'ArrowLeft':
      case 'ArrowDown':
        return order.findLastIndex(({ grid }) => grid.h < now.h * (1 - 1e-9));
      default:
        return null;
    }
  };
  const move = (event: KeyboardEvent): void => {
    const goal = goalOf(event.key);
    if (goal === null) return;
    event.preventDefault();
    if (event.shiftKey && event.key.startsWith('Arrow')) {
      const isGrowing = event.key === 'ArrowRight' || event.key === 'ArrowUp';
      toSteps(now.steps + (isGrowing ? -1 : 1));
      return;
    }
    const mark = order[goal];
    if (mark !== undefined) choose(mark.index);
  };
  return {
    tick,
    remove,
    press: (event) => {
      const { rung } = now;
      if ((event.key === 'Delete' || event.key === 'Backspace') && rung !== null && order.length > 1)
        remove(rung);
      else if ((event.key === 'Enter' || event.key === 'Insert') && addAsRung !== null) addAsRung();
      else if (event.key === 't' && rung !== null) tick(rung);
      else {
        move(event);
        return;
      }
      event.preventDefault();
    },
    drag: (event) => {
      const x = placeOf(event);
      const mark = near(x);
      if (mark === undefined) toSteps(stepsAt(x));
      else if (mark.index !== now.rung) choose(mark.index);
    },
    add: (event) => {
      const x = placeOf(event);
      const steps = stepsAt(x);
      if (near(x) !== undefined || order.some(({ grid }) => grid.steps === steps)) return;
      edit('ladder', (study) => withRungOf(study, steps, length));
    },
  };
}
