import type { ExportRequest } from '@schritt/core/document';
import type { ExportSettings } from './export-settings.ts';

/** The run that is chosen on the page. */
export interface ChosenRun {
  readonly method: number;
  readonly h: number;
  /** The step that is chosen, from grid point n on. */
  readonly n: number;
}

function columnsOf(text: string): readonly string[] | null {
  const names = text.split(',').map((name) => name.trim());
  return text.trim() === '' ? null : names.filter((name) => name !== '');
}

/** What a choice asks for; null for the tables of the study, which the page has. */
export function exportRequestOf(
  title: string,
  choice: ExportSettings,
  { method, h, n }: ChosenRun,
): ExportRequest | null {
  const { what, table, language, digits, columns, every, mark, comma, part, plot, size, ink, handout } =
    choice;
  const run = { method, gridRequest: { h } };
  switch (what) {
    case 'rows':
      return {
        ...run,
        what,
        as: table,
        digits,
        columns: columnsOf(columns),
        every,
        options: { mark, comma, part },
      };
    case 'program':
      return { ...run, what, as: language };
    case 'notebook':
      return { ...run, what };
    case 'sheet':
      return { what, as: choice.sheetAs, method, gridRequest: null };
    case 'plot':
      return {
        what,
        method,
        gridRequests: [{ h }],
        component: choice.component,
        drawn: choice.drawn,
        plot,
        size,
        ink,
      };
    case 'formulas':
      return { ...run, what, n: choice.worked ? n : null, part };
    case 'questions': {
      const { variants, sheets, seed } = handout;
      const { as, kinds } = choice.questions;
      const { digits: asked } = handout;
      return { what, as, request: { ...run, kinds, choices: variants, sheets, seed, digits: asked } };
    }
    case 'handout': {
      const { of, task, blanks, coefficients, room, variants, sheets, seed, paper, solved, as } = handout;
      return {
        what,
        as,
        solved,
        paper,
        request: {
          of: of === 'rungs' ? { kind: of } : { ...run, kind: of, columns: null },
          title,
          task,
          blanks: coefficients ? `${blanks}; coefficients` : blanks,
          digits: handout.digits,
          plot: room,
          choices: variants,
          sheets,
          seed,
        },
      };
    }
    default:
      return null;
  }
}
