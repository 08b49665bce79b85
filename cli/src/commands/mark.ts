import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import {
  AS_FOUND,
  classCounts,
  classJson,
  classTable,
  countsText,
  feedbackHtml,
  findRun,
  type FoundRun,
  type Layout,
  type Marking,
  markingJson,
  markingText,
  markRequest,
  type MarkRequest,
  type MarkRule,
  markSteps,
  readSubmitted,
  type RunChoice,
  type StudentMarking,
  submissionsOf,
  type SubmittedText,
  USUAL_RULE,
  variantStudies,
} from '@schritt/core/marking';
import { type SubmittedBytes, submittedTexts } from '@schritt/core/sheets';
import type { Study } from '@schritt/core/study';
import {
  gridRequestOf,
  jsonCell,
  plainTable,
  type StudyDocument,
  wholeOf,
  writeTable,
} from '@schritt/core/document';
import { stepSizeText, typesetOptions } from '@schritt/core/text';
import { Failure } from '../failure.ts';
import { lineWidth } from '../line-width.ts';
import { loadStudy } from '../load.ts';
import { pickMethod } from '../pick-method.ts';
import { withProgress } from '../progress.ts';

/** Formats that marks are printed in: of one student all but CSV. */
export const MARK_FORMATS = ['json', 'table', 'csv', 'html'] as const;

export interface MarkOptions {
  readonly method?: string;
  readonly h?: string;
  readonly steps?: string;
  readonly eachColumn?: boolean;
  readonly variants?: string;
  readonly sheets?: string;
  readonly seed?: string;
  readonly rowMarks?: string;
  readonly stepMarks?: string;
  readonly roundTo?: string;
  readonly rowsAsked?: string;
  readonly format: (typeof MARK_FORMATS)[number];
}

/** All files of a folder, and of the folders in it. */
function filesIn(folder: string): readonly SubmittedBytes[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => {
      const path = join(entry.parentPath, entry.name);
      return { name: path.slice(folder.length).replace(/^\/+/, ''), bytes: readFileSync(path) };
    })
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

function bytesOf(path: string): readonly SubmittedBytes[] {
  if (path === '-') return [{ name: 'standard input', bytes: readFileSync(process.stdin.fd) }];
  try {
    return statSync(path).isDirectory() ? filesIn(path) : [{ name: path, bytes: readFileSync(path) }];
  } catch (thrown) {
    throw new Failure([
      `${path}: cannot be read (${thrown instanceof Error ? thrown.message : String(thrown)})`,
    ]);
  }
}

/** A positive number of an option. */
function positive(name: string, text: string | undefined, otherwise: number): number {
  const value = text === undefined ? otherwise : Number(text);
  if (Number.isFinite(value) && value >= 0) return value;
  throw new Failure([`--${name} takes a number from 0 on, not ${text}`]);
}

function ruleOf({ rowMarks, stepMarks, roundTo, rowsAsked }: MarkOptions): MarkRule {
  const rule: MarkRule = {
    rowMarks: positive('row-marks', rowMarks, USUAL_RULE.rowMarks),
    stepMarks: positive('step-marks', stepMarks, USUAL_RULE.stepMarks),
    roundTo: positive('round-to', roundTo, USUAL_RULE.roundTo),
    rowsAsked: rowsAsked === undefined ? null : wholeOf('rows-asked', rowsAsked, [1, 10_000], 1),
  };
  if (rule.roundTo === 0) throw new Failure(['--round-to takes a number above 0']);
  return rule;
}

function runText(study: Study, { method, gridRequest }: RunChoice): string {
  const title = study.methods[method]?.title ?? '';
  return 'h' in gridRequest
    ? `--method "${title}" --h ${stepSizeText(gridRequest.h)}`
    : `--method "${title}" --steps ${gridRequest.steps}`;
}

/** Says which run was found, on the error output: what is printed stays what was asked for. */
function reportFound(study: Study, found: FoundRun): void {
  const others = found.equals.slice(0, 3).map((one) => runText(study, one));
  process.stderr.write(
    `found ${runText(study, found)}: ${found.right} of ${found.of} rows agree, ${found.near} with the student's own rows${others.length === 0 ? '' : `; as many with ${others.join(', ')}`}\n`,
  );
}

/** The run that is meant, as it is said or as it is found. */
function runOf(
  study: Study,
  files: readonly SubmittedText[],
  layout: Layout | null,
  options: MarkOptions,
): Pick<RunChoice, 'method' | 'gridRequest'> {
  const { method, h, steps } = options;
  const hasSize = h !== undefined || steps !== undefined;
  const chosen = method === undefined ? null : study.methods.indexOf(pickMethod(study, method));
  if (chosen !== null && hasSize) return { method: chosen, gridRequest: gridRequestOf(options) };
  const only = {
    ...study,
    methods: chosen === null ? study.methods : study.methods.slice(chosen, chosen + 1),
  };
  const found = withProgress(findRun({ studies: [only], files, layout, reading: AS_FOUND }));
  if (found === null)
    throw new Failure(['the rows agree with no run of this study; give --method and --h or --steps']);
  reportFound(only, found);
  return {
    method: chosen ?? found.method,
    gridRequest: hasSize ? gridRequestOf(options) : found.gridRequest,
  };
}

/** What rows are compared with: the run, or one of each sheet. */
function keysOf(
  document: StudyDocument,
  study: Study,
  { method, gridRequest }: Pick<RunChoice, 'method' | 'gridRequest'>,
  { variants, sheets, seed }: MarkOptions,
): readonly MarkRequest[] {
  const studies =
    variants === undefined
      ? [study]
      : variantStudies(document, {
          choices: variants,
          sheets: wholeOf('sheets', sheets, [1, 500], 1),
          seed: wholeOf('seed', seed, [0, 2 ** 31], 1),
        }).map((one) => one.study);
  return studies.map((one) => markRequest(one, { method, gridRequest }));
}

/** One student in words. */
function wordsOf(marking: Marking): string {
  const { mistakes, firstWrong } = marking;
  const likely =
    mistakes.length === 0
      ? firstWrong === null
        ? []
        : ['None of the known mistakes gives exactly these numbers.']
      : [
          mistakes.length === 1
            ? 'This mistake gives exactly these numbers:'
            : 'Each of these mistakes gives exactly these numbers:',
          ...mistakes.map(({ sentence }) => `- ${sentence}`),
        ];
  return [...markingText(marking), ...likely].join('\n');
}

function classText(students: readonly StudentMarking[], rule: MarkRule): string {
  const { columns, rows } = classTable(students, rule);
  const cells = rows.map((row) => row.map((cell) => (cell === null ? '' : String(jsonCell(cell)))));
  const titles = columns.map(({ title }) => title);
  return `${countsText(classCounts(students)).join('\n')}\n\n${plainTable(titles, cells, lineWidth())}`;
}

/** Marks the rows of one student, or of a class: a table with one column per student, a folder or an archive. */
export async function markCommand(file: string, columns: string, options: MarkOptions): Promise<string> {
  const { document, study } = loadStudy(file);
  const { eachColumn = false, format } = options;
  const rule = ruleOf(options);
  const { texts, unread } = await submittedTexts(bytesOf(columns));
  const isClass = eachColumn || texts.length + unread.length !== 1 || /\.zip$/i.test(columns);
  if (!isClass && unread[0] !== undefined) throw new Failure([`${columns}: ${unread[0].why}`]);
  if (!isClass && format === 'csv')
    throw new Failure(['--format csv is for a class; use it together with --each-column']);
  const layout = eachColumn ? 'one per column' : 'one per file';
  const keys = keysOf(document, study, runOf(study, texts, layout, options), options);
  const [first] = keys;
  if (first === undefined) throw new Failure(['there is no sheet']);
  const of = { request: first, layout, roles: {}, reading: AS_FOUND } as const;
  const submissions = submissionsOf(readSubmitted(texts, of));
  const students = [
    ...withProgress(markSteps(keys, submissions)),
    ...unread.map(({ name, why }): StudentMarking => ({ student: name, sheet: null, marking: null, why })),
  ];
  if (students.length === 0) throw new Failure([`${columns}: there is no file with rows`]);
  if (format === 'html') {
    const { default: katex } = await import('katex');
    return feedbackHtml(students, { title: document.title, rule, keys }, (tex, wide) =>
      katex.renderToString(tex, typesetOptions(wide, 'mathml')),
    );
  }
  const [only] = students;
  if (isClass || only === undefined) {
    if (format === 'csv') return writeTable(classTable(students, rule), 'csv');
    return `${format === 'json' ? JSON.stringify(classJson(students, rule), null, 2) : classText(students, rule)}\n`;
  }
  if (only.marking === null) throw new Failure([only.why ?? '']);
  return format === 'json'
    ? `${JSON.stringify(markingJson(only.marking), null, 2)}\n`
    : `${wordsOf(only.marking)}\n`;
}
