import { isNumberCell, nearestDouble } from '../csv.ts';
import type { StudyDocument } from '../../document/document.ts';
import { studyOrRefusal } from '../../document/open-study.ts';
import { exactCheckSentence } from '../../problem/check-exact.ts';
import { layGrid, type GridRequest } from '../../run/grid.ts';
import { exactCheck } from '../../study/judge/exact-check.ts';
import type { Study } from '../../study/runs/study.ts';
import { Refusal } from '../../text/refusal.ts';
import { parseBlanks, rowNumber } from './blanks.ts';
import { type Handout, type HandoutOf, makeHandout } from './handout.ts';
import { type Keys, keysOf } from './keys.ts';
import { ofSheet, type VariantRequest, variantStudies } from './variant-studies.ts';
import { parseChoices, repeatedSheets } from './variants.ts';

/** What a teacher asks for: a sheet, or as many variants of it as she has students. */
export interface HandoutRequest extends VariantRequest {
  readonly of:
    | { readonly kind: 'rungs' }
    | {
        readonly kind: 'rows';
        readonly method: number;
        readonly gridRequest: GridRequest;
        readonly columns: readonly string[] | null;
      };
  /** The title of the sheets. */
  readonly title: string;
  readonly task: string;
  /** As `parseBlanks` reads them. */
  readonly blanks: string;
  readonly digits: number;
  readonly plot: boolean;
  /** As `parseChoices` reads them; '' for one sheet without variants. */
  readonly choices: string;
}

export interface Handouts {
  readonly handouts: readonly Handout[];
  /** Null for one sheet without variants. */
  readonly keys: Keys | null;
}

/**
 * Makes sheets for students of a study: one, or one a student with other numbers in the problem. The same seed gives
 * the same sheets again.
 *
 * @throws Refusal for what cannot be read or run: blanks, lists of values, numbers that the problem does not take
 */
export function makeHandouts(document: StudyDocument, request: HandoutRequest): Handouts {
  const { title, task, digits, plot } = request;
  const blanks = parseBlanks(request.blanks);
  const make = (study: Study, number: number | null): Handout => {
    const of: HandoutOf =
      request.of.kind === 'rungs'
        ? request.of
        : {
            kind: 'rows',
            method: request.of.method,
            grid: layGrid(study.problem.start, study.problem.end, request.of.gridRequest, study.lastStep),
            columns: request.of.columns,
          };
    return makeHandout(study, { of, title, task, blanks, digits, plot }, number);
  };
  const first = studyOrRefusal(document);
  const choices = parseChoices(request.choices);
  if (choices.length === 0) return { handouts: [make(trusted(first), null)], keys: null };
  const usual = make(trusted(first), null);
  const sheets = variantStudies(document, request);
  const handouts = sheets.map(({ variant, study }, i) =>
    ofSheet(i + 1, variant, () => complete(make(trusted(study), i + 1), usual)),
  );
  return {
    handouts,
    keys: keysOf(
      handouts,
      sheets.map(({ variant }) => variant),
      { digits, note: repeatedSheets(choices, request.sheets) },
    ),
  };
}

/**
 * A sheet whose table has a number wherever that of the study has one.
 *
 * @throws Refusal where one is missing, as of a run that overflows with these numbers
 */
function complete(handout: Handout, usual: Handout): Handout {
  for (const [r, row] of handout.table.rows.entries())
    for (const [i, cell] of row.entries()) {
      const isNumber = isNumberCell(cell) ? Number.isFinite(nearestDouble(cell)) : cell !== null;
      if (isNumber || usual.table.rows[r]?.[i] == null) continue;
      const { title } = handout.table.columns[i] ?? { title: '' };
      throw new Refusal(
        'form',
        `${title} has no value in row ${rowNumber(handout.table, r)}: the run overflows`,
      );
    }
  return handout;
}

/** A study of which errors may be told: its exact solution, where it has one, has to be one. */
function trusted(study: Study): Study {
  const { problem } = study;
  const check = exactCheck(problem);
  if (check === null || check.satisfied) return study;
  const sentence = exactCheckSentence({ ...problem, equations: problem.unknowns.length }, check);
  throw new Refusal(
    'form',
    `the ${sentence}; write it with the names that change, or omit it; errors are then relative to a reference solution`,
  );
}
