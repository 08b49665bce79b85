import type { Expression } from '../../formula/expression.ts';
import type { TextPart } from '../../formula/printer.ts';
import { blockAt, componentNames, type Problem } from '../../problem/problem.ts';
import { initialFormula, intervalFormulas, parameterFormula } from '../../problem/formulas-of-numbers.ts';
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

/** The formula of the initial value of a component; null for an element of a family. */
function ownInitialFormula(problem: Problem, place: number): Expression | null {
  const block = blockAt(problem, place);
  return block === undefined || block.unknown.range !== null ? null : initialFormula(problem, block);
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
  /** What was typed as a formula, as one; any other number as it is. */
  const content = (expression: Expression | null, value: number): CellContent =>
    expression === null || expression.kind === 'number'
      ? value
      : { formula: formula(expression, null, 0, nowhere).text, result: value };
  const interval = intervalFormulas(problem);
  const { independent } = problem;
  const parameters: SheetLine[] = problem.parameters.map((parameter) => ({
    label: parameter.name,
    name: own.get(parameter.name) ?? parameter.name,
    content: content(parameterFormula(problem, parameter), parameter.value),
  }));
  const ends: SheetLine[] = [
    {
      label: `start of ${independent}`,
      name: names.make(`${independent}_start`),
      content: content(interval.start, problem.start),
    },
    {
      label: `end of ${independent}`,
      name: names.make(`${independent}_end`),
      content: content(interval.end, problem.end),
    },
  ];
  const initial: SheetLine[] = componentNames(problem).map((component, place) => ({
    label: `initial value of ${component}`,
    name: names.make(`${component.replace(/'/g, '_p')}_start`),
    content: content(ownInitialFormula(problem, place), problem.initial[place] ?? NaN),
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
