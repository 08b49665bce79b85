import { type Inlined, inlinedLines } from './inlined.ts';
import type { TemporaryNode, CodeNode } from './code-node.ts';
import { localName, type NameOf, printed } from './print.ts';

/** A statement of generated code. */
export type Statement =
  /** Puts a node aside under its number. */
  | { readonly kind: 'keep'; readonly kept: TemporaryNode; readonly value: CodeNode }
  /** A function written out: its value is put aside under a number; of a pair both are. */
  | {
      readonly kind: 'inlined';
      readonly kept: TemporaryNode;
      readonly second: TemporaryNode | null;
      readonly of: Inlined;
      /** Tells what it remembers from what is remembered elsewhere. */
      readonly place: string;
      readonly input: CodeNode;
      readonly coefficients: readonly CodeNode[];
    }
  /** Gives a place, such as an element of an array, the value of a node. */
  | { readonly kind: 'put'; readonly into: string; readonly value: CodeNode }
  /** A loop over an index that is the generator's own. */
  | {
      readonly kind: 'loop';
      readonly index: 'i' | 'j';
      readonly from: number;
      readonly to: number;
      readonly body: readonly Statement[];
    }
  /** Lines of a frame, such as the head of a loop over steps; no node is ever read back from them. */
  | { readonly kind: 'frame'; readonly lines: readonly string[] };

/** A stretch of code, and the nodes that represent what it has found. */
export interface Block {
  readonly statements: readonly Statement[];
  readonly result: readonly CodeNode[];
}

export function frame(...lines: readonly string[]): Statement {
  return { kind: 'frame', lines };
}

/**
 * Statements as lines of JavaScript.
 *
 * @param print a node as JavaScript
 */
export function linesOf(
  statements: readonly Statement[],
  nameOf: NameOf = localName,
  print: (piece: CodeNode) => string = (piece) => printed(piece, nameOf),
): readonly string[] {
  return statements.flatMap((statement): readonly string[] => {
    switch (statement.kind) {
      case 'keep': {
        const name = nameOf(statement.kept);
        const value = print(statement.value);
        return [nameOf === localName ? `const ${name} = ${value};` : `${name} = ${value};`];
      }
      case 'inlined':
        return inlinedLines(statement.of, {
          result: nameOf(statement.kept),
          second: statement.second === null ? '' : nameOf(statement.second),
          input: print(statement.input),
          place: statement.place,
          coefficients: statement.coefficients.map(print),
        });
      case 'put':
        return [`${statement.into} = ${print(statement.value)};`];
      case 'loop': {
        const { index, from, to, body } = statement;
        const head = `for (let ${index} = ${from}; ${index} < ${to}; ${index}++) {`;
        return [head, ...linesOf(body, nameOf, print), '}'];
      }
      case 'frame':
        return statement.lines;
    }
  });
}
