import { type Code, literal } from '../formula/javascript.ts';

/** The time of the present grid point, the step size, and nothing, in a generated loop. */
export const TIME: Code = { text: 't', atom: true, steady: false };
export const STEP: Code = { text: 'h', atom: true, steady: true };
export const ZERO = literal(0);

/** A constant of the problem, rounded as the arithmetic of the run is. */
export function constantCode(value: number, single: boolean): Code {
  return literal(single ? Math.fround(value) : value);
}

/** The time of a neighbouring grid point. */
export function timeCode(offset: number, single: boolean): Code {
  const shifted = `origin + (n ${offset < 0 ? '-' : '+'} ${Math.abs(offset)}) * h`;
  return { text: single ? `F(${shifted})` : `(${shifted})`, atom: false, steady: false };
}
