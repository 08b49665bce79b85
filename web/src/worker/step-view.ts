import { Refusal } from '@schritt/core/text';
import {
  layGrid,
  runOf,
  type Stroke,
  type Study,
  systemRightHandSides,
  workedStep,
} from '@schritt/core/study';
import type { StepView, StepRequest } from './messages.ts';

/** Strokes of the field along each side of the plot of a step. */
const FIELD = { across: 13, down: 9 };
/** How much more than the step is shown, as a part of it. */
const AROUND = 0.8;

/** The field of the right-hand sides around a step, for a problem of one component. */
function fieldAround(study: Study, view: Pick<StepView, 'worked'>): readonly Stroke[] {
  const { problem } = study;
  if (problem.size !== 1) return [];
  const { t, h, from, to, slopes: looks, exact } = view.worked;
  const heights = [from, to, ...looks.map(({ value }) => value), ...exact.filter((value) => value !== null)];
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const room = Math.max(high - low, Math.abs(high) * 1e-3, 1e-12) * AROUND;
  const rightHandSides = systemRightHandSides(problem);
  const strokes: Stroke[] = [];
  for (let i = 0; i < FIELD.across; i += 1)
    for (let j = 0; j < FIELD.down; j += 1) {
      const x = t - h * AROUND + (h * (1 + 2 * AROUND) * (i + 0.5)) / FIELD.across;
      const y = low - room + ((high - low + 2 * room) * (j + 0.5)) / FIELD.down;
      const slope = rightHandSides(x, [y])[0] ?? NaN;
      if (Number.isFinite(slope)) strokes.push({ x, y, dx: 1, dy: slope });
    }
  return strokes;
}

/** One step of one method computed, with the field of the right-hand sides around it. */
export function stepView(study: Study, { method, gridRequest, n, component }: StepRequest): StepView {
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', 'there is no such method');
  const { problem, lastStep } = study;
  const run = runOf(study, chosen);
  const grid = layGrid(problem.start, problem.end, gridRequest, lastStep);
  const step = Math.min(Math.max(0, n), grid.steps - 1);
  const own = Math.min(component, run.layout.width - 1);
  const worked = workedStep(run, grid, step, own);
  return { worked, steps: grid.steps, method, component: own, field: fieldAround(study, { worked }) };
}
