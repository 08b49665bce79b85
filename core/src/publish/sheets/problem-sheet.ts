import type { Expression } from '../../formula/expression.ts';
import { evaluate } from '../../formula/evaluate.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import type { TextPart } from '../../formula/printer.ts';
import { blockAt, componentNames, type Problem } from '../../problem/problem.ts';
import { isExactSolution } from '../../problem/statement.ts';
import { attempt } from '../../text/refusal.ts';
import type { FormulaWriting } from '../programs/language.ts';
import { oneLine } from '../tables/cell-text.ts';
import { MISSING, problemFormulas, type ProblemFormula } from './problem-formulas.ts';
import { CellNames } from './sheet-names.ts';
import { sheetWriting } from './sheet-writing.ts';
import { cell, type CellContent, EMPTY, type NamedCell, type Sheet, type SheetCell } from './workbook.ts';

/** The name of the sheet with the problem. */
export const PROBLEM_SHEET = 'Problem';

/** The names by which the sheets of a run call the numbers of a problem, and how its formulas are written. */
export interface ProblemCells {
  readonly start: string;
  readonly end: string;
  /** A name for another cell, which none of the problem has. */
  readonly another: (request: string) => string;
  /** One a component. */
  readonly initial: readonly string[];
  readonly writing: FormulaWriting;
  readonly formula: ProblemFormula;
  readonly used: (name: string) => void;
  /** Functions whose last digit may be another in a spreadsheet. */
  readonly functions: ReadonlySet<string>;
  /** The sheet with these cells, made last: formulas may ask for cells of their own. */
  readonly sheet: (
    title: string,
    notes: readonly string[],
  ) => {
    readonly sheet: Sheet;
    readonly names: readonly NamedCell[];
  };
}

interface SheetLine {
  readonly label: string;
  readonly name: string;
  readonly content: CellContent;
}

/** What the initial value of a component was written as; null where it has an index. */
function writtenInitial(problem: Problem, place: number): Expression | null {
  const { statements, independent } = problem;
  const block = blockAt(problem, place);
  if (block === undefined || block.unknown.range !== null) return null;
  for (const statement of statements) {
    if (statement.kind !== 'value' || isExactSolution(statement, independent)) continue;
    const { target, value } = statement;
    if (target.name === block.unknown.name && target.primes === block.derivative) return value;
  }
  return null;
}

/** The value of an expression of parameters alone. */
function valueOf({ parameters }: Problem, expression: Expression): number | null {
  const found = attempt(() =>
    evaluate(expression, (leaf) => {
      const own = parameters.find(({ name }) => leaf.kind === 'name' && name === leaf.name);
      return own?.value ?? (leaf.kind === 'name' ? CONSTANTS.get(leaf.name) : undefined) ?? NaN;
    }),
  );
  return found.ok ? found.value : null;
}

/** Gives the numbers of a problem cells with names: parameters, the interval, initial values. */
export function problemCells(problem: Problem): ProblemCells {
  const names = new CellNames();
  const functions = new Set<string>();
  const used = (name: string): void => {
    functions.add(name);
  };
  const long = new Map<number, string>();
  const writing = sheetWriting((value) => {
    const known = long.get(value) ?? names.make('number');
    long.set(value, known);
    return known;
  });
  const own = new Map(problem.parameters.map(({ name }) => [name, names.make(name)]));
  const formula = problemFormulas(problem, writing, own, used);
  const nowhere = { time: MISSING, component: (): TextPart => MISSING };
  /** A formula where it gives the number that the problem has, and else that number. */
  const content = (expression: Expression | null, value: number): CellContent => {
    if (expression === null || expression.kind === 'number') return value;
    if (!Object.is(valueOf(problem, expression), value)) return value;
    return { formula: formula(expression, null, 0, nowhere).text, result: value };
  };
  const interval = problem.statements.find((statement) => statement.kind === 'interval');
  const { independent } = problem;
  const parameters: SheetLine[] = problem.parameters.map(({ name, written, value }) => ({
    label: name,
    name: own.get(name) ?? name,
    content: content(written, value),
  }));
  const ends: SheetLine[] = [
    {
      label: `start of ${independent}`,
      name: names.make(`${independent}_start`),
      content: content(interval?.low ?? null, problem.start),
    },
    {
      label: `end of ${independent}`,
      name: names.make(`${independent}_end`),
      content: content(interval?.high ?? null, problem.end),
    },
  ];
  const initial: SheetLine[] = componentNames(problem).map((component, place) => ({
    label: `initial value of ${component}`,
    name: names.make(`${component.replace(/'/g, '_p')}_start`),
    content: content(writtenInitial(problem, place), problem.initial[place] ?? NaN),
  }));
  return {
    start: ends[0]?.name ?? '',
    end: ends[1]?.name ?? '',
    another: (request) => names.make(request),
    initial: initial.map(({ name }) => name),
    writing,
    formula,
    used,
    functions,
    sheet: (title, notes) => {
      const extra: SheetLine[] = [...long].map(([value, name]) => ({
        label: 'a coefficient',
        name,
        content: value,
      }));
      const lines = [...parameters, ...ends, ...initial, ...extra];
      const text = problem.text.trimEnd().split(/\r?\n/);
      const above: SheetCell[][] = [
        [cell(oneLine(title), 'title')],
        ...text.map((line) => [cell(oneLine(line), 'note')]),
        [],
        [cell('name', 'head'), cell('value', 'head'), cell('meaning', 'head')],
      ];
      return {
        sheet: {
          name: PROBLEM_SHEET,
          widths: [18, 24, 60],
          rows: [
            ...above,
            ...lines.map(({ label, name, content: value }) => [
              cell(name),
              cell(value, typeof value === 'number' ? 'input' : 'value'),
              cell(label, 'note'),
            ]),
            [EMPTY],
            ...notes.map((note) => [cell(note, 'note')]),
          ],
          frozen: { rows: 0, columns: 0 },
        },
        names: lines.map(({ name }, i) => ({
          name,
          sheet: PROBLEM_SHEET,
          row: above.length + i,
          column: 1,
        })),
      };
    },
  };
}
