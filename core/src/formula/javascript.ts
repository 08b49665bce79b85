import { isSpelledPower } from './evaluate.ts';
import type { Expression, Relation } from './expression.ts';
import { FUNCTIONS } from './functions.ts';

/** A piece of generated code: its text, and whether it is the same in every step of a loop. */
export interface Code {
  readonly text: string;
  /** A name or a number: may stand twice without being computed twice. */
  readonly atom: boolean;
  /** Depends on nothing that changes from one step to the next. */
  readonly steady: boolean;
}

/**
 * Where code is generated into. The target names things; no character of a user's text passes
 * through here: leaves come back as the target's own names, numbers as literals, functions from the table.
 */
export interface CodeTarget {
  /** The code of a leaf, or of a call that is not a function of the notation. */
  readonly leaf: (node: Expression) => Code;
  /** Keeps a piece under a name of the target's own and answers that name. */
  readonly keep: (code: Code) => Code;
  /** Whether every operation is rounded to 32 bits. */
  readonly single: boolean;
  /** Writes a function out instead of calling it; null where it is called. */
  readonly inline?: (name: string, inputs: readonly Code[]) => Code | null;
}

/** A number as a literal that reads back to the same bits. */
export function literal(value: number): Code {
  const text = Object.is(value, -0) ? '(-0)' : value < 0 ? `(${value})` : `${value}`;
  return { text, atom: true, steady: true };
}

/** One operation on pieces of code, bracketed, so that the order of the text is kept. */
export function operation(target: Pick<CodeTarget, 'single'>, text: string, parts: readonly Code[]): Code {
  return {
    text: target.single ? `F(${text})` : `(${text})`,
    atom: false,
    steady: parts.every((part) => part.steady),
  };
}

const RELATION_CODE: Readonly<Record<Relation, string>> = {
  '<': '<',
  '<=': '<=',
  '>': '>',
  '>=': '>=',
  '==': '===',
  '!=': '!==',
};

/**
 * JavaScript for a tree, operation by operation in the text's own order.
 * What is steady and not a plain atom is kept, so that a loop computes it once, outside.
 */
export function emit(expression: Expression, target: CodeTarget): Code {
  const hoisted = (code: Code): Code => (code.steady && !code.atom ? target.keep(code) : code);
  const value = (node: Expression): Code => {
    switch (node.kind) {
      case 'number':
        return literal(target.single ? Math.fround(node.value) : node.value);
      case 'name':
      case 'indexed':
        return target.leaf(node);
      case 'negate': {
        const of = value(node.of);
        return { text: `(-${of.text})`, atom: false, steady: of.steady };
      }
      case 'binary': {
        if (node.operator === '^') return powerCode(node.left, node.right);
        const left = value(node.left);
        const right = value(node.right);
        const steady = left.steady && right.steady;
        const [a, b] = steady ? [left, right] : [hoisted(left), hoisted(right)];
        return operation(target, `${a.text} ${node.operator} ${b.text}`, [a, b]);
      }
      case 'call': {
        const known = node.primes > 0 ? undefined : FUNCTIONS.get(node.name);
        if (known === undefined) return target.leaf(node);
        const inputs = node.inputs.map((input) => hoisted(value(input)));
        const inline = target.inline?.(node.name, inputs);
        if (inline != null) return inline;
        return operation(target, `${known.code}(${inputs.map((i) => i.text).join(', ')})`, inputs);
      }
      case 'if': {
        const left = value(node.test.left);
        const right = value(node.test.right);
        const yes = value(node.yes);
        const no = value(node.no);
        return {
          text: `(${left.text} ${RELATION_CODE[node.test.relation]} ${right.text} ? ${yes.text} : ${no.text})`,
          atom: false,
          steady: left.steady && right.steady && yes.steady && no.steady,
        };
      }
    }
  };
  const powerCode = (base: Expression, exponent: Expression): Code => {
    const left = value(base);
    if (!isSpelledPower(exponent) || exponent.kind !== 'number') {
      const right = value(exponent);
      return operation(target, `pow(${left.text}, ${right.text})`, [left, right]);
    }
    const x = left.atom ? left : target.keep(left);
    const square = operation(target, `${x.text} * ${x.text}`, [x]);
    return exponent.value === 2 ? square : operation(target, `${square.text} * ${x.text}`, [x]);
  };
  return hoisted(value(expression));
}
