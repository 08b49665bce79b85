import type { CodeLine, ProgramParts, StepRoutine } from './language.ts';
import { placesByComponent } from './notes.ts';

/** A result of a routine: the name that it has, and what it is in the end. */
export interface Output {
  readonly name: string;
  readonly value: string;
}

/** The arguments of a routine that does a step: the point, what is kept, the step size. */
export function stepArguments({ vectors, kept, usesNumber }: StepRoutine): readonly string[] {
  return [...(usesNumber ? ['n'] : []), 't', ...vectors, ...kept.map(({ name }) => name), 'h'];
}

/** What a step changes: its vectors, and what it keeps. */
export function stateNames({ vectors, kept }: StepRoutine): readonly string[] {
  return [...vectors, ...kept.map(({ name }) => name)];
}

/** The names of a point of a run: the number of the step, the time, the values. */
export function pointNames({ step }: ProgramParts): readonly string[] {
  return ['n', 't', ...step.vectors];
}

/** What a step returns; what is kept comes first, the oldest before all, so that it can be set in this order. */
export function stepOutputs({ vectors, kept, next }: StepRoutine): readonly Output[] {
  return [
    ...kept.map(({ name, from }): Output => ({ name, value: from })),
    ...vectors.map((name, i): Output => ({ name, value: next[i] ?? '' })),
  ];
}

/** The components of the state as elements of the vectors, counted from 0. */
export function componentTexts(
  parts: ProgramParts,
  element: (vector: string, i: number) => string,
): readonly string[] {
  return placesByComponent(parts).map(({ vector, index }) => {
    const name = parts.step.vectors[vector] ?? '';
    return parts.width === 1 ? name : element(name, index);
  });
}

/** Whether f at the present point is needed for what is kept while another method does the steps. */
export function keepsRhs({ step }: ProgramParts): boolean {
  return step.kept.some(({ from }) => from === 'f_0');
}

/** How the names of a routine are set. */
export interface Assignments {
  /** Set as a whole, once, outside of loops. */
  readonly once: ReadonlySet<string>;
  /** Vectors that are set element by element somewhere. */
  readonly byElement: ReadonlySet<string>;
}

/** How the names of these lines are set. */
export function assignments(lines: readonly CodeLine[]): Assignments {
  const counts = new Map<string, number>();
  const byElement = new Set<string>();
  const seen = (to: string, isInLoop: boolean): void => {
    const name = /^\w+/.exec(to)?.[0] ?? to;
    const isElement = name !== to;
    if (isElement) byElement.add(name);
    counts.set(name, (counts.get(name) ?? 0) + (isInLoop || isElement ? 2 : 1));
  };
  const go = (line: CodeLine, isInLoop: boolean): void => {
    switch (line.kind) {
      case 'set':
      case 'vector':
        seen(line.to, isInLoop);
        return;
      case 'routine':
        seen(line.into, isInLoop);
        return;
      case 'each':
      case 'repeat':
        line.body.forEach((inner) => go(inner, true));
        return;
      case 'leave':
      case 'fail':
      case 'solve':
        return;
    }
  };
  lines.forEach((line) => go(line, false));
  const once = new Set([...counts].flatMap(([name, count]) => (count === 1 ? [name] : [])));
  return { once, byElement };
}
