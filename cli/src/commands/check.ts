import { openStudy, type SchrittDocument, type StudyDocument } from '@schritt/core/document';
import {
  checkExact,
  evaluationsPerStep,
  exactCheckSentence,
  isSecondOrder,
  parseMethod,
  parseProblem,
  plainText,
  systemText,
} from '@schritt/core/notation';
import { checkTyped, runOf, stateFunction, typedCheckSentence } from '@schritt/core/study';
import { attempt, counted } from '@schritt/core/text';
import { Failure } from '../failure.ts';
import { errorLines, loadDocument } from '../load.ts';

function checkProblem(file: string, title: string, text: string, errors: string[]): readonly string[] {
  const reading = parseProblem(text);
  if (!reading.ok) {
    errors.push(...errorLines(file, title, reading.errors));
    return [];
  }
  const problem = reading.value;
  const check = checkExact(problem);
  const names = problem.blocks.length > 12 ? [] : problem.blocks;
  return [
    `problem "${title}": ${counted(problem.size, 'component')}, ${problem.start} <= ${problem.independent} <= ${problem.end}${isSecondOrder(problem) ? `, of the form x'' = a(${problem.independent}, x, x')` : ''}`,
    ...problem.parameters.map((p) => `  ${p.name} = ${p.value}`),
    '  read as',
    ...systemText(problem).map((line) => `    ${line}`),
    ...names
      .filter((b) => b.unknown.range === null)
      .map((b) => `    ${b.name}(${problem.start}) = ${problem.initial[b.offset]}`),
    ...problem.conserved.map(
      (c) =>
        `  conserved ${c.name} = ${plainText(c.value)}, at the start ${stateFunction(problem, c.value)(problem.start, problem.initial)}`,
    ),
    `  ${check === null ? 'no exact solution is given' : exactCheckSentence({ ...problem, equations: problem.unknowns.length }, check)}`,
    ...checkTyped(problem).map((typed) => `  ${typedCheckSentence(problem, typed)}`),
  ];
}

function checkMethod(file: string, title: string, text: string, errors: string[]): readonly string[] {
  const reading = parseMethod(text);
  if (reading.ok)
    return [`method "${title}": ${counted(evaluationsPerStep(reading.value), 'evaluation')} of f per step`];
  errors.push(...errorLines(file, title, reading.errors));
  return [];
}

/** What a study of texts without errors would be refused for: its settings, a method that does not fit, a step size. */
function refusals(file: string, document: StudyDocument): readonly string[] {
  const opened = openStudy(document);
  if (!opened.ok) return opened.errors.flatMap((text) => errorLines(file, text.title, text.errors));
  const { study } = opened;
  return study.methods.flatMap((method) => {
    const compiled = attempt(() => runOf(study, method));
    return compiled.ok ? [] : [`${file}: ${method.title}: ${compiled.refusal.message}`];
  });
}

/** Reads a file of any kind and says what was understood, or lists all errors. */
export function checkCommand(file: string): string {
  const document: SchrittDocument = loadDocument(file);
  const errors: string[] = [];
  const lines =
    document.kind === 'study'
      ? [
          ...checkProblem(file, document.problem.title, document.problem.text, errors),
          ...document.methods.flatMap((m) => checkMethod(file, m.title, m.text, errors)),
        ]
      : document.kind === 'problem'
        ? checkProblem(file, document.title, document.text, errors)
        : checkMethod(file, document.title, document.text, errors);
  if (errors.length === 0 && document.kind === 'study') errors.push(...refusals(file, document));
  if (errors.length > 0) throw new Failure(errors);
  return `${lines.join('\n')}\n`;
}
