import { layOut } from '../../program/layout.ts';
import { lower } from '../../program/lowering.ts';
import type { Method } from '../../method/method.ts';
import { componentNames, hasExact, isSecondOrder, type Problem } from '../../problem/problem.ts';
import type { Grid } from '../../run/grid.ts';
import { plainText } from '../../formula/plain-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { oneLine } from '../tables/cell-text.ts';
import type { ProgramParts, StepRoutine, Writing } from './language.ts';
import { Names } from './names.ts';
import { blockLines, type RhsContext } from './rhs-lines.ts';
import { stepRoutine } from './step-routine.ts';

/** What is to become a program: a problem, a method with its starter, a grid. */
export interface ProgramRequest {
  readonly title: string;
  readonly problem: Problem;
  readonly method: Method;
  readonly methodTitle: string;
  /** The starting method, for a multistep method. */
  readonly starter: { readonly title: string; readonly method: Method } | null;
  readonly grid: Grid;
}

/** Largest system that a program is written for. */
const MAX_COMPONENTS = 1000;

/**
 * The parts of a program for one language.
 *
 * @throws Refusal for what no program is made of: larger implicit systems and derivatives, multistep starting methods
 *   themselves, problems of another form, a last step that is shortened
 */
export function programParts(request: ProgramRequest, writing: Writing): ProgramParts {
  const { title, problem, method, methodTitle, starter, grid } = request;
  if (grid.shorter !== null)
    throw new Refusal(
      'grid',
      'a program uses a constant step size; choose a step size that divides the interval',
    );
  if (problem.size > MAX_COMPONENTS)
    throw new Refusal('size', `a program is written for up to ${MAX_COMPONENTS} components`);
  if (method.form === 'second order' && !isSecondOrder(problem))
    throw new Refusal('form', "this method is for equations x'' = a(t, x, x')");
  if (method.depth > 0 && (starter === null || starter.method.depth > 0))
    throw new Refusal('start', 'the starting method must be a one-step method');
  const functions = new Set<string>();
  const used = (name: string): void => {
    functions.add(name);
  };
  const isOneVector = method.form === 'first order';
  const vectors = isOneVector ? ['y'] : ['x', 'v'];
  const layout = layOut(problem, lower(method, problem.size === 1));
  const isOne = layout.width === 1;
  const names = new Names();
  const parameters = problem.parameters.map(({ name, value, written }) => ({
    own: name,
    name: names.make(name),
    value,
    written: oneLine(plainText(written)),
  }));
  const context: RhsContext = {
    problem,
    layout,
    writing,
    isOne,
    vectors,
    used,
    parameters: new Map(parameters.map(({ own, name }) => [own, name])),
  };
  const taken = parameters.map(({ name }) => name);
  const rated = layout.rated.map(({ block, offset }) => ({ block, offset, formula: block.rhs }));
  const rightHandSides = blockLines(context, rated, 'd');
  const exact = hasExact(problem)
    ? blockLines(
        { ...context, isOne: problem.size === 1 },
        problem.blocks.flatMap((block) =>
          block.exact === null ? [] : [{ block, offset: block.offset, formula: block.exact }],
        ),
        'e',
      )
    : null;
  const routine = (name: string, of: { readonly title: string; readonly method: Method }): StepRoutine =>
    stepRoutine({ name, taken, ...of }, context, layout.width);
  const step = routine('step', { title: methodTitle, method });
  const starterStep = starter === null || method.depth === 0 ? null : routine('first_step', starter);
  return {
    title,
    independent: problem.independent,
    components: componentNames(problem),
    size: problem.size,
    width: layout.width,
    places: layout.places,
    start: problem.start,
    end: problem.end,
    h: grid.h,
    steps: grid.steps,
    parameters: parameters.map(({ name, value, written }) => ({ name, value, written })),
    initial: problem.initial,
    rightHandSides,
    moved: step.solves || starterStep?.solves === true ? blockLines(context, rated, 'd', true) : null,
    rhsName: isOneVector ? 'f' : 'a',
    exact,
    step,
    starter: starterStep,
    depth: method.depth,
    functions: [...functions],
  };
}
