import type { DecimalPrecision } from '../../decimal/decimal-precision.ts';
import { layOut } from '../../program/layout.ts';
import { lower } from '../../program/lowering.ts';
import type { Method } from '../../method/method.ts';
import { initialFormula, intervalFormulas, parameterFormula } from '../../problem/formulas-of-numbers.ts';
import { type Block, componentNames, hasExact, isSecondOrder, type Problem } from '../../problem/problem.ts';
import type { Grid, LastStep } from '../../run/grid.ts';
import { type Expression, some } from '../../formula/expression.ts';
import { plainText } from '../../formula/plain-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { oneLine } from '../tables/cell-text.ts';
import type { CodeLine, Constant, ProgramParts, StepRoutine, Writing } from './language.ts';
import { Names } from './names.ts';
import { numberPart } from './program-language.ts';
import { blockLines, numberFormula, type RhsContext } from './rhs-lines.ts';
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
  /** What becomes of other step sizes that do not divide the interval. */
  readonly lastStep: LastStep;
  /** The arithmetic of the program; null for doubles. */
  readonly decimal: DecimalPrecision | null;
}

/** The parameters of a problem and both ends of its interval, as they are typed. */
function constantsOf(context: RhsContext, names: ReadonlyMap<string, string>): readonly Constant[] {
  const { problem, writing, parameters } = context;
  const { start, end } = intervalFormulas(problem);
  const isParameter = (node: Expression): boolean => node.kind === 'name' && parameters.has(node.name);
  const isPower = (node: Expression): boolean => node.kind === 'binary' && node.operator === '^';
  const constant = (name: string, formula: Expression | null, value: number, typed: string): Constant => {
    const isReplaced = formula === null && Number(typed) !== value;
    return {
      name,
      value: formula === null ? numberPart(value, writing).text : numberFormula(context, formula),
      note: isReplaced ? `${oneLine(typed)} in the text` : null,
      isComputed:
        formula !== null &&
        some(
          formula,
          (node) => node.kind === 'call' || node.kind === 'if' || isParameter(node) || isPower(node),
        ),
    };
  };
  return [
    ...problem.parameters.map((parameter) =>
      constant(
        names.get(parameter.name) ?? parameter.name,
        parameterFormula(problem, parameter),
        parameter.value,
        plainText(parameter.written),
      ),
    ),
    constant('T_START', start, problem.start, String(problem.start)),
    constant('T_END', end, problem.end, String(problem.end)),
  ];
}

/** Lines that set the elements of a block to their initial values: by their formula, or one by one. */
function initialLines(context: RhsContext, block: Block): readonly CodeLine[] {
  const { problem, layout, vectors, isOne, writing } = context;
  const { vector, index } = layout.of[block.offset] ?? { vector: 0, index: 0 };
  const into = vectors[vector] ?? '';
  const formula = initialFormula(problem, block);
  if (formula !== null) return blockLines(context, [{ block, offset: index, formula }], into);
  return Array.from({ length: block.size }, (_, k): CodeLine => ({
    kind: 'set',
    to: isOne ? into : writing.element(into, index + k),
    value: numberPart(problem.initial[block.offset + k] ?? 0, writing).text,
  }));
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
  const { title, problem, method, methodTitle, starter, grid, lastStep } = request;
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
  const rhsName = isOneVector ? 'f' : 'a';
  const names = new Names(writing.reserved, [rhsName, ...vectors]);
  const parameters = problem.parameters.map(({ name }) => ({ own: name, name: names.make(name) }));
  const context: RhsContext = {
    problem,
    layout,
    writing,
    isOne,
    vectors,
    used,
    parameters: new Map(parameters.map(({ own, name }) => [own, writing.constant(name)])),
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
  if (request.decimal !== null && step.solves)
    throw new Refusal('form', 'a program with decimal digits is written for explicit methods');
  const starterStep = starter === null || method.depth === 0 ? null : routine('first_step', starter);
  return {
    title,
    statement: problem.text,
    independent: problem.independent,
    components: componentNames(problem),
    size: problem.size,
    width: layout.width,
    places: layout.places,
    constants: constantsOf(context, new Map(parameters.map(({ own, name }) => [own, name]))),
    h: grid.h,
    isTyped: !grid.divides && grid.h === grid.wished,
    steps: grid.steps,
    lastStep: lastStep === 'overrun' ? 'overrun' : 'fit',
    initial: problem.blocks.flatMap((block) => initialLines(context, block)),
    rightHandSides,
    moved: step.solves || starterStep?.solves === true ? blockLines(context, rated, 'd', true) : null,
    rhsName,
    exact,
    step,
    starter: starterStep,
    depth: method.depth,
    functions: [...functions],
    decimal: request.decimal,
  };
}
