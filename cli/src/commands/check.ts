import { componentNames, type Document, hasExact, parseMethod, parseProblem, systemTex } from '@schritt/core';
import { Failure } from '../failure.ts';
import { errorLines, loadDocument } from '../load.ts';

function checkProblem(file: string, title: string, text: string, errors: string[]): readonly string[] {
  const reading = parseProblem(text);
  if (!reading.ok) {
    errors.push(...errorLines(file, title, reading.errors));
    return [];
  }
  const problem = reading.value;
  const names = componentNames(problem);
  return [
    `problem "${title}": ${problem.size === 1 ? 'one component' : `${problem.size} components`}, ${problem.start} <= ${problem.independent} <= ${problem.end}`,
    ...systemTex(problem).map((line) => `  ${line}`),
    ...problem.blocks
      .filter((b) => b.size === 1)
      .map((b) => `  ${b.name}(${problem.start}) = ${problem.initial[b.offset]}`),
    hasExact(problem)
      ? `  exact solution given for ${names.length === 1 ? names[0] : 'all components'}`
      : '  no exact solution for all components',
  ];
}

function checkMethod(file: string, title: string, text: string, errors: string[]): readonly string[] {
  const reading = parseMethod(text);
  if (reading.ok) return [`method "${title}": ${reading.value.statements.length} lines`];
  errors.push(...errorLines(file, title, reading.errors));
  return [];
}

/** Reads a file of any kind and says what was understood, or lists all errors. */
export function checkCommand(file: string): string {
  const document: Document = loadDocument(file);
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
  if (errors.length > 0) throw new Failure(errors);
  return `${lines.join('\n')}\n`;
}
