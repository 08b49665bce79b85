import type { Expression } from '../src/formula/expression.ts';
import { Parser } from '../src/formula/parse.ts';
import { tokenize } from '../src/text/token.ts';

/** A formula of names and functions of the notation, as a tree. @throws Error where it cannot be read */
export function parsedFormula(text: string): Expression {
  const report = (_: unknown, message: string): never => {
    throw new Error(message);
  };
  const grammar = { calls: () => false, multiplies: () => false, refuseCall: () => null, report };
  return new Parser(
    tokenize(text, { from: 0, to: text.length }, report),
    { from: text.length, to: text.length + 1 },
    grammar,
  ).whole();
}
