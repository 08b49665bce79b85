import { readFileSync } from 'node:fs';
import {
  DRAWN_AS,
  HANDOUTS_OF,
  PAPERS,
  PLOTS,
  PLOT_INKS,
  PLOT_SIZES,
  RUNG_COLUMNS,
} from '@schritt/core/document';
import { Refusal } from '@schritt/core/text';
import { Command, Option } from 'commander';
import { checkCommand } from './commands/check.ts';
import { exportCommand } from './commands/export.ts';
import { type ExportOptions, FORMATS, EXPORT_KINDS } from './commands/export-options.ts';
import { inspectCommand } from './commands/inspect.ts';
import { emitCommand } from './commands/emit.ts';
import { MARK_FORMATS, markCommand, type MarkOptions } from './commands/mark.ts';
import { runCommand, type RunOptions } from './commands/run.ts';
import { type StudyFormat, studyCommand } from './commands/study.ts';
import { Failure } from './failure.ts';
import { visible } from './visible.ts';

/** A fault in the form of all errors of the terminal: `error: ` before each line. */
function errorText(message: string): string {
  return message
    .split('\n')
    .map((line) => `error: ${visible(line)}\n`)
    .join('');
}

/** Runs a command, prints what it answers, and turns faults of the input into exit code 1. */
function answer(work: () => string): void {
  try {
    process.stdout.write(visible(work()));
  } catch (thrown) {
    if (!(thrown instanceof Failure) && !(thrown instanceof Refusal)) throw thrown;
    process.stderr.write(errorText(thrown.message));
    process.exitCode = 1;
  }
}

/** The same for what comes in parts; a printed text shows no sign that a terminal would take for a command. */
async function answerInParts(work: () => AsyncIterable<string | Uint8Array>): Promise<void> {
  try {
    for await (const part of work()) {
      if (typeof part === 'string') process.stdout.write(visible(part));
      else if (process.stdout.isTTY) throw new Failure(['this output is binary; name a file with --out']);
      else process.stdout.write(part);
    }
  } catch (thrown) {
    if (!(thrown instanceof Failure) && !(thrown instanceof Refusal)) throw thrown;
    process.stderr.write(errorText(thrown.message));
    process.exitCode = 1;
  }
}

const formats = (): Option =>
  new Option('--format <format>', 'output format').choices(['json', 'table', 'csv']).default('table');

/**
 * The commands of the terminal program; those that need the store of the server are added where the server is at hand.
 */
export const program = new Command('schritt')
  .description('Fixed-step methods for initial value problems: errors, ratios and observed orders')
  .version(version(), '-V, --version', 'print the version');

/** The option that names what is exported; a plot is also found as a picture. */
function whatToExport(): Option {
  const option = new Option('--what <what>', 'what to export').choices(EXPORT_KINDS).default('rungs');
  const { parseArg } = option;
  return option.argParser<string>((name, before) => {
    const wanted = name === 'picture' ? 'plot' : name;
    return parseArg === undefined ? wanted : parseArg(wanted, before);
  });
}

/** The version of this program. */
function version(): string {
  const own: unknown = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8'));
  return typeof own === 'object' && own !== null && 'version' in own ? String(own.version) : '';
}

// the reader may stop before the end, as `head` does; anything else that is wrong with the output is said in a line
process.stdout.on('error', (fault: NodeJS.ErrnoException) => {
  if (fault.code !== 'EPIPE') process.stderr.write(`the output cannot be written (${fault.message})\n`);
  process.exit(fault.code === 'EPIPE' ? 0 : 1);
});

program
  .command('study')
  .description('run a study: every method at every step size')
  .argument('<file>', 'a *.schritt.json file')
  .addOption(formats())
  .action((file: string, options: { format: StudyFormat }) =>
    answer(() => studyCommand(file, options.format)),
  );

program
  .command('run')
  .description('print the step table of one run, with all stages')
  .argument('<file>', 'a study file')
  .requiredOption('--method <title>', 'which method of the study')
  .option('--h <size>', 'step size: a number or an expression such as pi/8')
  .option('--steps <count>', 'number of steps instead of a step size')
  .option('--from <n>', 'first row to print')
  .option('--count <count>', 'how many rows to print')
  .addOption(formats())
  .action((file: string, options: RunOptions) => answer(() => runCommand(file, options)));

program
  .command('mark')
  .description(
    'mark the rows of a student: the first wrong row, and mistakes that give exactly these numbers',
  )
  .argument('<file>', 'a study file')
  .argument(
    '<columns>',
    'the rows: CSV, text, .xlsx or .ods; a folder or .zip with a file per student; - for standard input',
  )
  .option('--method <title>', 'which method of the study; by default that with which most rows agree')
  .option('--h <size>', 'step size: a number or an expression such as pi/8; found by default')
  .option('--steps <count>', 'number of steps instead of a step size')
  .option('--each-column', 'a class: one column per student beside columns for n or the time')
  .option('--variants <values>', 'individual parameters, as in k in 0.2, 0.25, ..., 0.6')
  .option('--sheets <count>', 'number of variants')
  .option('--seed <number>', 'seed of the variants')
  .option('--row-marks <marks>', 'marks for right rows', '5')
  .option('--step-marks <marks>', 'marks for steps that are right from the student’s own rows', '5')
  .option('--round-to <marks>', 'what marks are multiples of', '0.5')
  .option('--rows-asked <count>', 'rows that were asked for; by default as many as the run has steps')
  .addOption(new Option('--format <format>', 'output format').choices(MARK_FORMATS).default('table'))
  .action((file: string, columns: string, options: MarkOptions) =>
    answerInParts(async function* () {
      yield await markCommand(file, columns, options);
    }),
  );

program
  .command('check')
  .description('report how a file is interpreted, or list its errors')
  .argument('<file>', 'a *.schritt.json file')
  .action((file: string) => answer(() => checkCommand(file)));

program
  .command('inspect')
  .description('analyse the methods of a file: class, order, stability, likely mistakes')
  .argument('<file>', 'a study or method file')
  .addOption(new Option('--format <format>', 'output format').choices(['json', 'table']).default('table'))
  .action((file: string, options: { format: 'json' | 'table' }) =>
    answer(() => inspectCommand(file, options.format)),
  );

program
  .command('emit')
  .description('print the code that is generated for a method of a study')
  .argument('<file>', 'a study file')
  .requiredOption('--method <title>', 'which method of the study')
  .action((file: string, options: { method: string }) => answer(() => emitCommand(file, options)));

program
  .command('export')
  .description(
    'export a study or a run as a table, code, a notebook, a spreadsheet, a plot, formulas, a handout or questions',
  )
  .argument('<file>', 'a study file')
  .addOption(whatToExport())
  .addOption(new Option('--as <format>', 'file format').choices(FORMATS))
  .option('--method <title>', 'which method of the study')
  .option('--h <size>', 'step size: a number or an expression such as pi/8')
  .option('--steps <count>', 'number of steps instead of a step size')
  .option(
    '--columns <names>',
    `columns by name, separated by commas: of the step table, or ${RUNG_COLUMNS.join(', ')}`,
  )
  .option('--every <count>', 'print every k-th grid point')
  .option('--digits <count>', 'significant digits (default: all digits)')
  .option('--bom', 'UTF-8 BOM before CSV (for spreadsheet programs)')
  .option('--comma', 'CSV with semicolons and decimal commas')
  .option('--part', 'LaTeX or HTML as a fragment')
  .option('--step <n>', 'formulas: also work out this step')
  .addOption(new Option('--plot <plot>', 'plots: which one').choices(PLOTS))
  .addOption(new Option('--size <size>', 'plots: size').choices(PLOT_SIZES))
  .addOption(new Option('--ink <ink>', 'plots: colours').choices(PLOT_INKS))
  .option('--sizes <list>', 'plots of runs: several step sizes of one method, separated by commas')
  .option('--component <name>', 'plots of runs: a component by name, or all')
  .addOption(new Option('--draw <how>', 'solution plots: how points are drawn').choices(DRAWN_AS))
  .option('--scale <factor>', 'plots as PNG: scale factor, 1 to 4')
  .addOption(new Option('--of <table>', 'handouts: which table').choices(HANDOUTS_OF))
  .option('--kinds <list>', 'questions: order, value, stage, stable, coefficient (default: value)')
  .option('--task <text>', 'handouts: instructions')
  .option('--blanks <blanks>', 'handouts: "columns k1, k2; rows after 2; cells 3 k1; coefficients"')
  .option('--room', 'handouts: space for a plot')
  .option('--variants <lists>', 'handouts, questions: "k in 0.2, 0.25, ..., 0.6; start in 1..5"')
  .option('--sheets <count>', 'handouts, questions: number of variants')
  .option('--seed <number>', 'handouts, questions: seed of the random choice')
  .option('--key', 'handouts: answer key')
  .addOption(new Option('--paper <paper>', 'handouts: paper size').choices(PAPERS))
  .option('--out <file>', 'a file to write instead of printing')
  .action((file: string, options: ExportOptions) => answerInParts(() => exportCommand(file, options)));
