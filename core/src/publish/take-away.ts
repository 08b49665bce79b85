import type { StudyDocument } from '../document/document.ts';
import { compileWithStart } from '../compile/compile-with-start.ts';
import { layGrid, type Wish } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import type { Study } from '../study/runs/study.ts';
import { count } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import { formulasTex } from './formulas-tex.ts';
import { handoutHtml, type PagePart, type Paper, type Typeset } from './handouts/handout-html.ts';
import { handoutTex } from './handouts/handout-tex.ts';
import { handoutWorkbook } from './handouts/handout-workbook.ts';
import { type HandoutRequest, makeHandouts } from './handouts/make-handouts.ts';
import { type PlotData, plotData, type PlotInk, type PlotRequest, type PlotSize } from './plot-data.ts';
import type { LanguageName } from './programs/language.ts';
import { programOf } from './programs/program-of.ts';
import { studyWorkbook } from './sheets/study-workbook.ts';
import type { Workbook } from './sheets/workbook.ts';
import { rowTable } from './tables/row-table.ts';
import type { TableFormat } from './tables/table.ts';
import { type TableOptions, writeTable } from './tables/table-formats.ts';

/** Formats of sheets for students. */
export const HANDOUT_FORMATS = ['html', 'tex', 'xlsx'] as const;
export type HandoutFormat = (typeof HANDOUT_FORMATS)[number];

/** One run of a study. */
interface OneRun {
  readonly method: number;
  readonly wish: Wish;
}

/** What can be exported of a study beside its own tables: rows, programs, sheets, plots, formulas, handouts. */
export type Wanted =
  | (OneRun & {
      readonly what: 'rows';
      readonly as: TableFormat;
      readonly digits: number | null;
      readonly columns: readonly string[] | null;
      /** every k-th grid point has a row. */
      readonly every: number;
      readonly options: TableOptions;
    })
  | (OneRun & { readonly what: 'program'; readonly as: LanguageName })
  /** One method over the ladder, or at one step size. */
  | { readonly what: 'sheet'; readonly method: number; readonly wish: Wish | null }
  | (PlotRequest & { readonly what: 'plot'; readonly size: PlotSize; readonly ink: PlotInk })
  /** With a step worked out where n is given. */
  | (OneRun & { readonly what: 'formulas'; readonly n: number | null; readonly part: boolean })
  | {
      readonly what: 'handout';
      readonly as: HandoutFormat;
      readonly request: HandoutRequest;
      readonly solved: boolean;
      readonly paper: Paper;
    };

/** What comes of it: a text, sheets for `xlsx`, or what is still to be drawn: a plot, or a page with plots in it. */
export type Taken =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'workbook'; readonly workbook: Workbook }
  | { readonly kind: 'plot'; readonly plot: PlotData; readonly size: PlotSize; readonly ink: PlotInk }
  | { readonly kind: 'page'; readonly parts: readonly PagePart[] };

/** Most rows of one text. */
const MAX_ROWS = 200_000;

function rowsText(title: string, study: Study, wanted: Wanted & { readonly what: 'rows' }): string {
  const chosen = study.methods[wanted.method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${wanted.method}`);
  const grid = layGrid(study.problem.start, study.problem.end, wanted.wish, study.lastStep);
  const shown = Math.floor(grid.steps / wanted.every) + 1;
  if (shown > MAX_ROWS)
    throw new Refusal(
      'grid',
      `a table has at most ${count(MAX_ROWS)} rows; schritt export writes CSV of any length`,
    );
  const run = compileWithStart(study.problem, chosen.method, study.start);
  const { rows } = rowsOf(run, grid, { from: 0, count: shown, every: wanted.every });
  const table = rowTable(`${title}: ${chosen.title}`, run, rows, wanted);
  return writeTable(table, wanted.as, wanted.options);
}

function textOf(text: string): Taken {
  return { kind: 'text', text };
}

function workbookOf(workbook: Workbook): Taken {
  return { kind: 'workbook', workbook };
}

/**
 * A study or a run in a format for export.
 *
 * @param study the document, opened
 * @param typeset sets formulas of pages
 * @throws Refusal with the reason for what cannot be taken away
 * @example takeAway(document, study, wantedFrom('Sluice', study, { what: 'rows', as: 'md', method: 'Heun', steps: '16' }), () => '').kind // 'text'
 */
export function takeAway(document: StudyDocument, study: Study, wanted: Wanted, typeset: Typeset): Taken {
  const { title } = document;
  const gridOf = (wish: Wish): ReturnType<typeof layGrid> =>
    layGrid(study.problem.start, study.problem.end, wish, study.lastStep);
  switch (wanted.what) {
    case 'rows':
      return textOf(rowsText(title, study, wanted));
    case 'program':
      return textOf(programOf(title, study, { method: wanted.method, grid: gridOf(wanted.wish) }, wanted.as));
    case 'sheet':
      return workbookOf(
        studyWorkbook(title, study, wanted.method, wanted.wish === null ? null : [gridOf(wanted.wish)]),
      );
    case 'plot': {
      const { size, ink } = wanted;
      return { kind: 'plot', plot: plotData(title, study, wanted), size, ink };
    }
    case 'formulas': {
      const { method, wish, n, part } = wanted;
      return textOf(formulasTex(title, study, n === null ? null : { method, grid: gridOf(wish), n }, part));
    }
    case 'handout': {
      const { as, solved, paper } = wanted;
      const { handouts, keys } = makeHandouts(document, wanted.request);
      if (as === 'html')
        return { kind: 'page', parts: handoutHtml({ handouts, keys }, { solved, paper }, typeset) };
      return as === 'tex'
        ? textOf(handoutTex(handouts, solved, paper, keys))
        : workbookOf(handoutWorkbook(handouts, solved, keys));
    }
  }
}
