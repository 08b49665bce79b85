import type { CompiledRun } from '../../compile/compile.ts';
import type { StudyDocument } from '../../document/document.ts';
import { studyOrRefusal } from '../../document/open-study.ts';
import { type Random, randomFrom } from '../../elementary/random.ts';
import { type Expression, walk } from '../../formula/expression.ts';
import { texNumber, texSymbol } from '../../formula/tex-names.ts';
import { inspectMethod } from '../../inspect/inspect-method.ts';
import { jacobianAt, largestStep } from '../../inspect/stability/spectrum.ts';
import { type Method, type MethodStatement, valuesOf } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { methodTex } from '../../method/tex-method.ts';
import { componentName, hasExact } from '../../problem/problem.ts';
import { aligned, problemTex, statementLines } from '../../problem/tex-problem.ts';
import { type Grid, type GridRequest, layGrid, timeAt } from '../../run/grid.ts';
import { type Row, rowsOf } from '../../run/rows.ts';
import { runStudy } from '../../study/run-study.ts';
import { runOf, type Study, type StudyMethod } from '../../study/runs/study.ts';
import { short, stepSizeText } from '../../text/number-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { parseChoices, variantsOf, withVariant } from '../handouts/variants.ts';
import { runPlotData } from '../plot-data.ts';
import { type Question, type QuestionKind, type QuestionLine, sentence } from './question.ts';

/** What questions are made of: a method at a step size, and the numbers that change. */
export interface QuestionRequest {
  readonly method: number;
  readonly gridRequest: GridRequest;
  readonly kinds: readonly QuestionKind[];
  /** As `parseChoices` reads them; '' for the numbers of the study. */
  readonly choices: string;
  /** How many variants there are of each kind. */
  readonly sheets: number;
  readonly seed: number;
  /** Significant digits that are asked for. */
  readonly digits: number;
}

/** What one variant has: the study with its numbers, the method, the run. */
interface Variant {
  readonly study: Study;
  readonly title: string;
  readonly method: Method;
  readonly chosen: StudyMethod;
  readonly place: number;
  readonly grid: Grid;
  readonly digits: number;
  readonly random: Random;
}

/** Steps of a run from which values and stages are asked for, at most: by hand nobody computes more. */
const MAX_ASKED = 5;

function pick<T>(list: readonly T[], random: Random): T | undefined {
  return list[Math.floor(random() * list.length)];
}

/** One unit of the last digit that is asked for. */
function unitOf(value: number, digits: number): number {
  const exponent = value === 0 ? 0 : Math.floor(Math.log10(Math.abs(value)));
  return Number(`1e${exponent - digits + 1}`);
}

function statement({ study, method, title }: Variant): readonly QuestionLine[] {
  const lines = statementLines(problemTex(study.problem, '&='));
  return [
    sentence('Consider the initial value problem'),
    { kind: 'formula', tex: aligned(lines) },
    sentence(`and the method ${title},`),
    { kind: 'formula', tex: aligned(methodTex(method, '&=')) },
  ];
}

function step(h: number): { readonly tex: string } {
  return { tex: `h = ${texNumber(Number(stepSizeText(h)) === h ? h : Number(short(h, 6)))}` };
}

/** The run, and its rows as far as questions ask for them. */
function rowsFor({ study, chosen, grid, title }: Variant): {
  readonly run: CompiledRun;
  readonly rows: readonly Row[];
} {
  const run = runOf(study, chosen);
  const { rows, stopped } = rowsOf(run, grid, { from: 0, count: Math.min(MAX_ASKED, grid.steps) + 1 });
  if (stopped !== null) throw new Refusal('form', `${title} stops in step ${stopped.step}: ${stopped.why}`);
  return { run, rows };
}

function valueQuestion(variant: Variant): Omit<Question, 'kind' | 'name'> {
  const { study, grid, digits, random, place } = variant;
  const { problem } = study;
  const asked = pick(rowsFor(variant).rows.slice(1), random);
  const component = Math.floor(random() * Math.min(problem.size, 4));
  const answer = asked?.values[component];
  if (asked === undefined || answer === undefined) throw new Refusal('grid', 'the run has no step');
  const name = componentName(problem, component);
  const primes = name.endsWith("'") ? 1 : 0;
  const symbol = texSymbol(name.replace(/'+$/, ''), primes, String(asked.n));
  return {
    lines: [
      ...statement(variant),
      sentence(
        'with the step size ',
        step(grid.h),
        '. Compute ',
        { tex: symbol },
        `, the value after ${asked.n === 1 ? 'one step' : `${asked.n} steps`}, at `,
        { tex: `${texSymbol(problem.independent)} = ${texNumber(Number(short(timeAt(grid, asked.n), 6)))}` },
        `, to ${digits} significant digits.`,
      ),
      {
        kind: 'plot',
        plot: runPlotData('solution', 'Solution', study, {
          method: place,
          gridRequests: [{ steps: grid.steps }],
          component: null,
          drawn: null,
        }),
      },
    ],
    answer,
    tolerance: unitOf(answer, digits),
  };
}

function stageQuestion(variant: Variant): Omit<Question, 'kind' | 'name'> {
  const { study, grid, digits, random, title } = variant;
  const { run, rows: all } = rowsFor(variant);
  const rows = all.filter(({ stages }) => stages !== null);
  const stages = run.program.stages.flatMap(({ name, shape }, i) =>
    shape === 'vector' ? [{ name, i }] : [],
  );
  const [row, stage] = [pick(rows, random), pick(stages, random)];
  if (row === undefined || stage === undefined)
    throw new Refusal('form', `${title} has no stages with a name, such as k1 = f(t, y)`);
  const component = Math.floor(random() * Math.min(study.problem.size, 4));
  const answer = row.stages?.[stage.i]?.[component];
  if (answer === undefined) throw new Refusal('form', `${title} has no value of ${stage.name}`);
  const of = study.problem.size === 1 ? '' : ` (component ${componentName(study.problem, component)})`;
  return {
    lines: [
      ...statement(variant),
      sentence(
        'with the step size ',
        step(grid.h),
        '. Compute ',
        { tex: texSymbol(stage.name) },
        `${of} of the step from grid point ${row.n} to ${row.n + 1}, to ${digits} significant digits. Round only at the end.`,
      ),
    ],
    answer,
    tolerance: unitOf(answer, digits),
  };
}

function orderQuestion(variant: Variant): Omit<Question, 'kind' | 'name'> {
  const { study, place, random, title } = variant;
  if (!hasExact(study.problem))
    throw new Refusal('form', 'questions of the observed order need an exact solution of the problem');
  const rungs = runStudy(study).methods[place]?.rungs ?? [];
  const pairs = rungs.flatMap((rung, i) => {
    const before = rungs[i - 1];
    if (before === undefined || rung.order === null) return [];
    return rung.leftOut === null && before.leftOut === null ? [{ before, rung, order: rung.order }] : [];
  });
  const chosen = pick(pairs, random);
  if (chosen === undefined) throw new Refusal('form', `${title} has no observed order in this study`);
  return {
    lines: [
      ...statement(variant),
      sentence(
        'with the step sizes ',
        step(chosen.before.h),
        ' and ',
        step(chosen.rung.h),
        '. Compute the observed order of convergence from the errors of both runs at the end of the interval, to two decimals.',
      ),
    ],
    answer: chosen.order,
    tolerance: 0.01,
  };
}

/** The number by which y is multiplied in y' = lambda*y + g(t); null for any other problem. */
function lambdaOf({ problem }: Study): number | null {
  if (problem.size !== 1) return null;
  const values = [0, 0.25, 0.5, 1].flatMap((part) => {
    const t = problem.start + part * (problem.end - problem.start);
    return [-1.5, 0.3, 2].map((y) => jacobianAt(problem, t, [y])[0]?.[0] ?? NaN);
  });
  const [first = NaN] = values;
  return values.every((value) => Math.abs(value - first) <= 1e-12 * Math.abs(first)) ? first : null;
}

function stableQuestion(variant: Variant): Omit<Question, 'kind' | 'name'> {
  const { study, method, digits, title } = variant;
  const lambda = lambdaOf(study);
  if (lambda === null || !(lambda < 0))
    throw new Refusal(
      'form',
      "questions of the largest stable step size need an equation y' = -k*y + g(t) with k > 0",
    );
  const { stability } = inspectMethod(method);
  const largest = stability === null ? null : largestStep(stability.polynomial, { re: lambda, im: 0 });
  if (largest === null || !Number.isFinite(largest) || !(largest > 0))
    throw new Refusal('form', `${title} has no largest stable step size for this problem`);
  return {
    lines: [
      ...statement(variant),
      sentence(
        `Up to which step size do errors of earlier steps not grow? Give the largest such `,
        { tex: 'h' },
        ` to ${digits} significant digits.`,
      ),
    ],
    answer: largest,
    tolerance: unitOf(largest, digits),
  };
}

/** Numbers of a formula with their places in the text. */
function numbersOf(
  formula: Expression,
): readonly { readonly value: number; readonly from: number; readonly to: number }[] {
  const found: { value: number; from: number; to: number }[] = [];
  walk(formula, (node) => {
    if (node.kind === 'number' && node.at.to > node.at.from) found.push({ value: node.value, ...node.at });
  });
  return found;
}

function orderOf(method: Method): number | null {
  return inspectMethod(method).order?.order ?? null;
}

function coefficientQuestion(variant: Variant): Omit<Question, 'kind' | 'name'> {
  const { method, random, title } = variant;
  const order = orderOf(method);
  if (order === null || order < 2)
    throw new Refusal(
      'form',
      'questions of a wrong coefficient need a method with a proved order of 2 or more',
    );
  const numbers = method.statements
    .flatMap((line: MethodStatement) => valuesOf(line))
    .flatMap(numbersOf)
    .filter(
      ({ value, from, to }) =>
        Number.isInteger(value) && value > 1 && method.text.slice(from, to) === String(value),
    );
  const first = Math.floor(random() * numbers.length);
  for (const [i] of numbers.entries()) {
    const at = numbers[(first + i) % numbers.length];
    if (at === undefined) continue;
    const wrong = at.value + 1 + Math.floor(random() * 2);
    const text = `${method.text.slice(0, at.from)}${wrong}${method.text.slice(at.to)}`;
    const reading = parseMethod(text);
    const lower = reading.ok ? orderOf(reading.value) : null;
    if (!reading.ok || lower === null || lower >= order) continue;
    return {
      lines: [
        sentence(
          `This method is meant to be ${title}, of order ${order}. One of its numbers is wrong, so that it has order ${lower}.`,
        ),
        { kind: 'formula', tex: aligned(methodTex(reading.value, '&=')) },
        sentence(`The wrong number is a ${wrong}. Which number belongs in its place?`),
      ],
      answer: at.value,
      tolerance: 0,
    };
  }
  throw new Refusal('form', `${title} has no coefficient that can be exchanged`);
}

const MAKE: Readonly<Record<QuestionKind, (variant: Variant) => Omit<Question, 'kind' | 'name'>>> = {
  order: orderQuestion,
  value: valueQuestion,
  stage: stageQuestion,
  stable: stableQuestion,
  coefficient: coefficientQuestion,
};

/**
 * Questions for learning platforms: one of each kind for every variant of the numbers of the problem. The same seed
 * gives the same questions again.
 *
 * @throws Refusal for kinds that a problem or a method does not allow, and for lists of values that cannot be read
 */
export function makeQuestions(document: StudyDocument, request: QuestionRequest): readonly Question[] {
  const first = studyOrRefusal(document);
  const choices = parseChoices(request.choices);
  const variants = choices.length === 0 ? [[]] : variantsOf(choices, request.sheets, request.seed);
  return variants.flatMap((changes, i) => {
    const study =
      changes.length === 0
        ? first
        : studyOrRefusal({
            ...document,
            problem: { ...document.problem, text: withVariant(first.problem, changes) },
          });
    const chosen = study.methods[request.method];
    if (chosen === undefined) throw new Refusal('missing', `this study has no method ${request.method}`);
    const { problem } = study;
    return request.kinds.map((kind, k): Question => {
      const variant: Variant = {
        study,
        title: chosen.title,
        method: chosen.method,
        chosen,
        place: request.method,
        grid: layGrid(problem.start, problem.end, request.gridRequest, study.lastStep),
        digits: request.digits,
        random: randomFrom(request.seed * 1009 + i * 31 + k),
      };
      return { kind, name: `${document.title}: ${kind} ${i + 1}`, ...MAKE[kind](variant) };
    });
  });
}
