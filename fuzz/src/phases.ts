import {
  type ExportQuery,
  FORMATS_OF,
  openStudy,
  runKey,
  type StudyDocument,
  studyReport,
  studyTable,
  exportStudy,
  RUN_EXPORTS,
  exportRequest,
  writeTable,
} from '@schritt/core/document';
import { readDocument } from '@schritt/core/format';
import {
  conditionTex,
  inspectionReport,
  inspectMethod,
  regionPicture,
  testBench,
} from '@schritt/core/inspect';
import {
  checkExact,
  derivativesTex,
  exactCheckSentence,
  type Method,
  methodHints,
  methodTex,
  parseMethod,
  parseProblem,
  type Problem,
  problemHints,
  problemTex,
  type Reading,
  stepExpression,
  systemTex,
  systemText,
} from '@schritt/core/notation';
import { Refusal, typesetOptions } from '@schritt/core/text';
import {
  checkTyped,
  conclude,
  estimatedSeconds,
  generateLoop,
  isDecimal,
  layGrid,
  portrait,
  precisionOf,
  rowsOf,
  runOf,
  runStudy,
  stepLimits,
  type Study,
  workedStep,
} from '@schritt/core/study';
import { drawnFile } from '@schritt/plot/node';
import { xlsx } from '@schritt/core/sheets';
import katex from 'katex';
import type { Case } from './cases.ts';

/** Longest text that a document holds. */
const LONGEST_TEXT = 20_000;
/** Longest message about a text. */
const MAX_MESSAGE = 500;
/** Estimated seconds of a study that is run; a longer one is work for a server, with a watchdog of its own. */
const MAX_SECONDS = 0.05;

/** Of so many cases one goes through what takes long: a plot of the solution, a region, convergence tests, a file. */
const EVERY = { portrait: 3, region: 5, bench: 60, sheet: 40 };

/** What does not hold of a case. */
export interface Fault {
  readonly phase: string;
  readonly what: string;
}

/** What came of a case: what does not hold of it, and the phase that took most processor time. */
export interface Outcome {
  readonly faults: readonly Fault[];
  readonly slowest: { readonly phase: string; readonly seconds: number };
}

/** Runs one phase; a refusal is an answer, any other exception a fault. */
type Phase = <T>(phase: string, work: () => T) => T | null;

function checkErrors(phase: string, text: string, reading: Reading<unknown>, faults: Fault[]): void {
  if (reading.ok) return;
  const lines = text.split('\n');
  const wrong = (what: string): void => void faults.push({ phase, what });
  if (reading.errors.length === 0) wrong('no error and no reading');
  for (const { line, column, length, message, repairs = [] } of reading.errors) {
    const own = lines[line - 1];
    if (own === undefined || column < 1 || column > own.length + 1 || length < 1)
      wrong(`a place outside of the text: line ${line}, column ${column}, length ${length}`);
    if (message === '' || message.length > MAX_MESSAGE) wrong(`a message of ${message.length} characters`);
    for (const { from, to } of repairs)
      if (!(from >= 0 && from <= to && to <= text.length)) wrong(`a repair from ${from} to ${to}`);
  }
}

function aboutProblem(problem: Problem, phase: Phase, turn: number): void {
  const check = phase('check of the exact solution', () => checkExact(problem));
  if (check !== null)
    phase('sentence of the check', () =>
      exactCheckSentence({ ...problem, equations: problem.unknowns.length }, check),
    );
  const typeset = (tex: string): string => katex.renderToString(tex, typesetOptions(true, 'mathml'));
  phase('problem as TeX', () => problemTex(problem).equations.map(typeset));
  phase('system as TeX', () => systemTex(problem).slice(0, 20).map(typeset));
  phase('system as text', () => systemText(problem));
  phase('derivatives as TeX', () => derivativesTex(problem));
  phase('hints of the problem', () => problemHints(problem));
  phase('derivatives typed by hand', () => checkTyped(problem));
  if (turn % EVERY.portrait === 0) phase('portrait', () => portrait(problem));
  phase('step as an expression', () => stepExpression(problem, 7));
}

function aboutMethod(method: Method, phase: Phase, turn: number): void {
  phase('method as TeX', () =>
    methodTex(method).map((line) => katex.renderToString(line, typesetOptions(true, 'mathml'))),
  );
  phase('hints of the method', () => methodHints(method));
  const inspection = phase('inspection', () => inspectMethod(method));
  if (inspection === null) return;
  phase('report of the inspection', () => inspectionReport('Method', method));
  phase('conditions as TeX', () =>
    inspection.order?.failing
      .slice(0, 10)
      .map((condition) => conditionTex(condition, inspection.tableau !== null)),
  );
  const { stability } = inspection;
  if (stability !== null && turn % EVERY.region === 0)
    phase('stability region', () => regionPicture(stability));
  if (turn % EVERY.bench === 0) phase('convergence tests', () => testBench(method));
}

/** How each kind of export is asked for. */
const EXPORTS: Readonly<Record<(typeof RUN_EXPORTS)[number], Omit<ExportQuery, 'what'>>> = {
  rows: { steps: '4' },
  program: { steps: '4' },
  notebook: { steps: '4' },
  sheet: {},
  plot: { plot: 'order' },
  formulas: { step: '0', steps: '4' },
  handout: { of: 'rungs', key: true },
  questions: { steps: '4', kinds: 'value' },
};

function exports(document: StudyDocument, study: Study, phase: Phase, turn: number): void {
  const what = RUN_EXPORTS[turn % RUN_EXPORTS.length] ?? 'rows';
  const formats = FORMATS_OF[what];
  const as = formats[turn % formats.length] ?? formats[0];
  phase(`export of ${what} as ${as}`, () => {
    const query = { ...EXPORTS[what], what, as, method: document.methods[0]?.title ?? '' };
    const request = exportRequest(document.title, study, query);
    const made = exportStudy(document, study, request, (tex, wide) =>
      katex.renderToString(tex, typesetOptions(wide, 'mathml')),
    );
    return made.kind === 'workbook' ? made : drawnFile(made, as);
  });
}

function aboutStudy(document: StudyDocument, study: Study, phase: Phase, turn: number): void {
  const { problem, lastStep } = study;
  const seconds = phase('estimate', () => estimatedSeconds(study));
  const isLong = seconds === null || seconds > MAX_SECONDS;
  for (const [i, chosen] of study.methods.entries()) {
    const { title, method } = chosen;
    const precision = precisionOf(study, chosen);
    if (!isDecimal(precision)) phase('generated code', () => generateLoop(problem, method, precision));
    phase('key', () => runKey(document, i));
    const run = phase('compiling', () => runOf(study, chosen));
    if (run === null) continue;
    const grid = phase('grid', () => layGrid(problem.start, problem.end, { steps: 4 }, lastStep));
    if (grid === null || isLong) continue;
    phase(`rows of ${title}`, () => rowsOf(run, grid, { from: 0, count: 5 }));
    phase(`worked step of ${title}`, () => workedStep(run, grid, 1, 0));
  }
  if (isLong) return;
  const result = phase('study', () => {
    const made = runStudy(study);
    // a fault that one method has for itself is a fault all the same
    const fault = made.methods.find(({ refused }) => refused?.startsWith('internal error') === true);
    if (fault !== undefined) throw new Error(fault.refused ?? '');
    return made;
  });
  if (result === null) return;
  phase('conclusion', () =>
    conclude(
      study,
      result.methods.map(({ title, rungs }) => ({ title, rungs, refused: null })),
    ),
  );
  phase('limits of the step size', () => stepLimits(study));
  phase('report', () => {
    const report = studyReport(document.title, problem, result);
    return (['csv', 'md', 'tex', 'html', 'txt'] as const).map((as) =>
      writeTable(studyTable(report, 'rungs'), as),
    );
  });
  exports(document, study, phase, turn);
}

/**
 * Sends the texts of a case through everything that is derived from them.
 *
 * @param turn chooses what is too long to be done for every case: one export, the convergence tests now and then
 */
export async function throughAllPhases({ problem, methods, setup }: Case, turn: number): Promise<Outcome> {
  const faults: Fault[] = [];
  let slowest = { phase: '', seconds: 0 };
  const phase: Phase = (name, work) => {
    const before = process.cpuUsage();
    try {
      return work();
    } catch (thrown) {
      if (!(thrown instanceof Refusal))
        faults.push({
          phase: name,
          what: thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown),
        });
      return null;
    } finally {
      const { user, system } = process.cpuUsage(before);
      const seconds = (user + system) / 1e6;
      if (seconds > slowest.seconds) slowest = { phase: name, seconds };
    }
  };
  const readProblem = phase('reading the problem', () => parseProblem(problem));
  if (readProblem !== null) checkErrors('reading the problem', problem, readProblem, faults);
  if (readProblem?.ok === true) aboutProblem(readProblem.value, phase, turn);
  for (const text of methods) {
    const reading = phase('reading a method', () => parseMethod(text));
    if (reading === null) continue;
    checkErrors('reading a method', text, reading, faults);
    if (reading.ok) aboutMethod(reading.value, phase, turn);
  }
  const reading = readDocument({
    schritt: 1,
    kind: 'study',
    title: 'Fuzz',
    problem: { title: 'Problem', text: problem },
    methods: methods.map((text, i) => ({ title: `M${i}`, text })),
    ...setup,
  });
  const isTooLong = [problem, ...methods].some((text) => text.length > LONGEST_TEXT);
  if (!reading.ok || reading.document.kind !== 'study') {
    if (!isTooLong) faults.push({ phase: 'document', what: JSON.stringify(reading) });
    return { faults, slowest };
  }
  const { document } = reading;
  const opened = phase('opening the study', () => openStudy(document));
  if (opened?.ok !== true) return { faults, slowest };
  aboutStudy(document, opened.study, phase, turn);
  if (turn % EVERY.sheet === 0) {
    const { study } = opened;
    const book = phase('sheet', () =>
      exportStudy(document, study, exportRequest('Fuzz', study, { what: 'sheet' }), String),
    );
    if (book?.kind === 'workbook') await xlsx(book.workbook);
  }
  return { faults, slowest };
}
