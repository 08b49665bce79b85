import type { StudyDocument } from '../document/document.ts';
import { layGrid, type GridRequest } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import { isDecimal } from '../compile/precision.ts';
import { precisionOf, runOf, type Study } from '../study/runs/study.ts';
import { count } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import { formulasTex } from './formulas-tex.ts';
import { notebookOf } from './notebook.ts';
import { handoutHtml, type PagePart, type Paper, type Typeset } from './handouts/handout-html.ts';
import { handoutTex } from './handouts/handout-tex.ts';
import { handoutWorkbook } from './handouts/handout-workbook.ts';
import { type HandoutRequest, makeHandouts } from './handouts/make-handouts.ts';
import { type PlotData, plotData, type PlotInk, type PlotRequest, type PlotSize } from './plot-data.ts';
import type { LanguageName } from './programs/language.ts';
import { programOf } from './programs/program-of.ts';
import { gift } from './questions/gift.ts';
import { makeQuestions, type QuestionRequest } from './questions/make-questions.ts';
import { moodleXml } from './questions/moodle-xml.ts';
import { type PackageFile, qtiPackage } from './questions/qti.ts';
import { decimalWorkbook } from './sheets/decimal-workbook.ts';
import { studyWorkbook } from './sheets/study-workbook.ts';
import type { Workbook } from './sheets/workbook.ts';
import { rowTable } from './tables/row-table.ts';
import type { TableFormat } from './tables/table.ts';
import { type TableOptions, writeTable } from './tables/table-formats.ts';

/** Formats of sheets for students. */
export const HANDOUT_FORMATS = ['html', 'tex', 'xlsx'] as const;
export type HandoutFormat = (typeof HANDOUT_FORMATS)[number];

/** Formats of questions for learning platforms: Moodle XML, GIFT, QTI 2.1. */
export const QUESTION_FORMATS = ['xml', 'gift', 'qti'] as const;
export type QuestionFormat = (typeof QUESTION_FORMATS)[number];

/** One run of a study. */
interface OneRun {
  readonly method: number;
  readonly gridRequest: GridRequest;
}

/** What can be exported of a study beside its own tables: rows, programs, sheets, plots, formulas, handouts. */
export type ExportRequest =
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
  | (OneRun & { readonly what: 'notebook' })
  /** One method over the ladder, or at one step size. */
  | {
      readonly what: 'sheet';
      readonly as: 'xlsx' | 'ods';
      readonly method: number;
      readonly gridRequest: GridRequest | null;
    }
  | (PlotRequest & { readonly what: 'plot'; readonly size: PlotSize; readonly ink: PlotInk })
  /** With a step computed where n is given. */
  | (OneRun & { readonly what: 'formulas'; readonly n: number | null; readonly part: boolean })
  | {
      readonly what: 'questions';
      readonly as: QuestionFormat;
      readonly request: QuestionRequest;
    }
  | {
      readonly what: 'handout';
      readonly as: HandoutFormat;
      readonly request: HandoutRequest;
      readonly solved: boolean;
      readonly paper: Paper;
    };

/** What comes of it: a text, sheets for `xlsx`, or what is still to be drawn: a plot, or a page with plots in it. */
export type Exported =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'workbook'; readonly workbook: Workbook }
  | { readonly kind: 'plot'; readonly plot: PlotData; readonly size: PlotSize; readonly ink: PlotInk }
  /** Plots become markup of the page, or a text in base 64. */
  | { readonly kind: 'page'; readonly parts: readonly PagePart[]; readonly plots: 'markup' | 'base64' }
  /** Files that are zipped. */
  | { readonly kind: 'package'; readonly files: readonly PackageFile[] };

/** Most rows of one text. */
const MAX_ROWS = 200_000;

function rowsText(title: string, study: Study, request: ExportRequest & { readonly what: 'rows' }): string {
  const chosen = study.methods[request.method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${request.method}`);
  const grid = layGrid(study.problem.start, study.problem.end, request.gridRequest, study.lastStep);
  const shown = Math.floor(grid.steps / request.every) + 1;
  if (shown > MAX_ROWS)
    throw new Refusal(
      'grid',
      `a table has at most ${count(MAX_ROWS)} rows; schritt export writes CSV of any length`,
    );
  const run = runOf(study, chosen);
  const { rows } = rowsOf(run, grid, { from: 0, count: shown, every: request.every });
  const table = rowTable(`${title}: ${chosen.title}`, run, rows, request);
  return writeTable(table, request.as, request.options);
}

function textOf(text: string): Exported {
  return { kind: 'text', text };
}

function workbookOf(workbook: Workbook): Exported {
  return { kind: 'workbook', workbook };
}

/** What makes the spreadsheet of a method: one that calculates, or for decimals one of values. */
function workbookFor(study: Study, method: number): typeof studyWorkbook {
  const chosen = study.methods[method];
  const isInDecimals = chosen !== undefined && isDecimal(precisionOf(study, chosen));
  return isInDecimals ? decimalWorkbook : studyWorkbook;
}

/**
 * A study or a run in a format for export.
 *
 * @param study the document, opened
 * @param typeset sets formulas of pages
 * @throws Refusal with the reason for what cannot be exported
 * @example exportStudy(document, study, exportRequest('Sluice', study, { what: 'rows', as: 'md', method: 'Heun', steps: '16' }), () => '').kind // 'text'
 */
export function exportStudy(
  document: StudyDocument,
  study: Study,
  request: ExportRequest,
  typeset: Typeset,
): Exported {
  const { title } = document;
  const gridOf = (gridRequest: GridRequest): ReturnType<typeof layGrid> =>
    layGrid(study.problem.start, study.problem.end, gridRequest, study.lastStep);
  switch (request.what) {
    case 'rows':
      return textOf(rowsText(title, study, request));
    case 'program':
      return textOf(
        programOf(title, study, { method: request.method, grid: gridOf(request.gridRequest) }, request.as),
      );
    case 'notebook':
      return textOf(
        notebookOf(document, study, { method: request.method, grid: gridOf(request.gridRequest) }),
      );
    case 'sheet':
      return workbookOf(
        workbookFor(study, request.method)(
          title,
          study,
          request.method,
          request.gridRequest === null ? null : [gridOf(request.gridRequest)],
        ),
      );
    case 'plot': {
      const { size, ink } = request;
      return { kind: 'plot', plot: plotData(title, study, request), size, ink };
    }
    case 'formulas': {
      const { method, gridRequest, n, part } = request;
      return textOf(
        formulasTex(title, study, n === null ? null : { method, grid: gridOf(gridRequest), n }, part),
      );
    }
    case 'questions': {
      const questions = makeQuestions(document, request.request);
      if (request.as === 'xml') return { kind: 'page', parts: moodleXml(title, questions), plots: 'base64' };
      return request.as === 'gift'
        ? textOf(gift(title, questions))
        : { kind: 'package', files: qtiPackage(title, questions, typeset) };
    }
    case 'handout': {
      const { as, solved, paper } = request;
      const { handouts, keys } = makeHandouts(document, request.request);
      if (as === 'html')
        return {
          kind: 'page',
          parts: handoutHtml({ handouts, keys }, { solved, paper }, typeset),
          plots: 'markup',
        };
      return as === 'tex'
        ? textOf(handoutTex(handouts, solved, paper, keys))
        : workbookOf(handoutWorkbook(handouts, solved, keys));
    }
  }
}
