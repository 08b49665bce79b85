import { count } from '../text/number-text.ts';
import type { Expression, Relation } from './expression.ts';
import { measure } from './measure.ts';
import { texNumber, texSymbol } from './tex-names.ts';

/** How tightly a piece of set mathematics holds together; a looser one inside a tighter one takes brackets. */
type Tightness = 'sum' | 'product' | 'power' | 'atom';

interface Piece {
  readonly tex: string;
  readonly holds: Tightness;
  /** A leading minus, kept apart so that a product can move it to its front. */
  readonly minus: boolean;
  /** Ends in something behind which a plain letter can follow without a sign of multiplication. */
  readonly numeral: boolean;
  /** Tall: brackets around it must grow. */
  readonly tall: boolean;
}

const ORDER: Readonly<Record<Tightness, number>> = { sum: 0, product: 1, power: 2, atom: 3 };

const RELATION_TEX: Readonly<Record<Relation, string>> = {
  '<': '<',
  '<=': '\\le',
  '>': '>',
  '>=': '\\ge',
  '==': '=',
  '!=': '\\ne',
};

const FUNCTION_TEX: ReadonlyMap<string, string> = new Map([
  ['sin', '\\sin'],
  ['cos', '\\cos'],
  ['tan', '\\tan'],
  ['asin', '\\arcsin'],
  ['acos', '\\arccos'],
  ['atan', '\\arctan'],
  ['sinh', '\\sinh'],
  ['cosh', '\\cosh'],
  ['tanh', '\\tanh'],
  ['ln', '\\ln'],
  ['log10', '\\log_{10}'],
  ['log2', '\\log_{2}'],
  ['min', '\\min'],
  ['max', '\\max'],
  ['exp', '\\exp'],
  ['sign', '\\operatorname{sgn}'],
  ['atan2', '\\operatorname{atan2}'],
]);

function piece(tex: string, holds: Tightness, more: Partial<Omit<Piece, 'tex' | 'holds'>> = {}): Piece {
  return { tex, holds, minus: false, numeral: false, tall: false, ...more };
}

function signed(from: Piece): string {
  return from.minus ? `-${from.tex}` : from.tex;
}

function bracket(from: Piece): string {
  return from.tall ? `\\left(${signed(from)}\\right)` : `(${signed(from)})`;
}

function atLeast(from: Piece, holds: Tightness): string {
  return from.minus || ORDER[from.holds] < ORDER[holds] ? bracket(from) : from.tex;
}

/** Two factors side by side, with a sign of multiplication only where they would run together. */
function beside(left: string, right: string, leftIsNumeral: boolean): string {
  if (/^[0-9.]/.test(right)) return `${left} \\cdot ${right}`;
  if (leftIsNumeral) return /^[a-zA-Z(\\]/.test(right) ? `${left} ${right}` : `${left} \\cdot ${right}`;
  if (/^(\\left)?[([]/.test(right))
    return /[a-zA-Z}]$/.test(left) ? `${left}\\,${right}` : `${left} ${right}`;
  const runsOn = /\\(mathit|operatorname|sin|cos|tan|ln|log|arc|exp|min|max)/;
  return runsOn.test(left) || runsOn.test(right) ? `${left}\\,${right}` : `${left} ${right}`;
}

function product(left: Piece, right: Piece): Piece {
  const first = atLeast({ ...left, minus: false }, 'product');
  const second = atLeast(
    right.holds === 'product' && !right.minus ? { ...right, holds: 'atom' } : right,
    'product',
  );
  return piece(beside(first, second, left.numeral), 'product', {
    minus: left.minus,
    numeral: left.numeral && right.numeral,
    tall: left.tall || right.tall,
  });
}

function quotient(left: Piece, right: Piece): Piece {
  return piece(`\\frac{${left.tex}}{${signed(right)}}`, 'product', { minus: left.minus, tall: true });
}

function sum(operator: '+' | '-', left: Piece, right: Piece): Piece {
  const flips = right.minus && right.holds !== 'sum';
  const shown = flips ? (operator === '+' ? '-' : '+') : operator;
  const needsBracket = right.holds === 'sum' && (operator === '-' || right.minus);
  const term = needsBracket ? bracket(right) : right.tex;
  return piece(`${signed(left)} ${shown} ${term}`, 'sum', { tall: left.tall || right.tall });
}

function power(left: Piece, right: Piece, base: Expression): Piece {
  const exponent = `{${signed(right)}}`;
  const named = base.kind === 'call' && base.primes === 0 ? FUNCTION_TEX.get(base.name) : undefined;
  if (
    named !== undefined &&
    base.kind === 'call' &&
    base.inputs.length === 1 &&
    !named.includes('_') &&
    base.name !== 'exp' &&
    !right.minus
  )
    return piece(`${named}^${exponent}${input(base.inputs[0]!, pieceOf(base.inputs[0]!))}`, 'product', {
      tall: left.tall,
    });
  const primed = base.kind === 'name' || base.kind === 'indexed' ? base.primes > 0 : false;
  const below = primed ? bracket(left) : atLeast(left, 'atom');
  return piece(`${below}^${exponent}`, 'power', { tall: left.tall });
}

/** The input of a named function: without brackets where it is one letter or a number of letters. */
function input(expression: Expression, set: Piece): string {
  const plain =
    expression.kind === 'name' ||
    (expression.kind === 'binary' &&
      expression.operator === '*' &&
      (expression.left.kind === 'name' || expression.left.kind === 'number') &&
      expression.right.kind === 'name');
  return plain && !set.minus && set.holds !== 'sum' ? ` ${set.tex}` : bracket(set);
}

function list(inputs: readonly Expression[]): Piece {
  const pieces = inputs.map(pieceOf);
  return piece(pieces.map(signed).join(', '), 'sum', { tall: pieces.some((p) => p.tall) });
}

function callPiece(node: Expression & { readonly kind: 'call' }): Piece {
  const [first] = node.inputs;
  if (node.primes === 0 && first !== undefined && node.inputs.length === 1) {
    const inner = pieceOf(first);
    switch (node.name) {
      case 'sqrt':
        return piece(`\\sqrt{${signed(inner)}}`, 'atom', { tall: inner.tall });
      case 'cbrt':
        return piece(`\\sqrt[3]{${signed(inner)}}`, 'atom', { tall: inner.tall });
      case 'abs':
        return piece(`\\left|${signed(inner)}\\right|`, 'atom', { tall: inner.tall });
      case 'floor':
        return piece(`\\left\\lfloor ${signed(inner)}\\right\\rfloor`, 'atom', { tall: inner.tall });
      case 'exp':
        if (!inner.tex.includes('\\begin')) return piece(`e^{${signed(inner)}}`, 'power');
    }
    const named = FUNCTION_TEX.get(node.name);
    if (named !== undefined) return piece(`${named}${input(first, inner)}`, 'product', { tall: inner.tall });
  }
  if (node.name === 'mod' && node.primes === 0 && node.inputs.length === 2) {
    const [a, b] = node.inputs.map(pieceOf);
    return piece(`${atLeast(a!, 'product')} \\bmod ${atLeast(b!, 'power')}`, 'sum');
  }
  const symbol =
    node.primes === 0
      ? (FUNCTION_TEX.get(node.name) ?? texSymbol(node.name))
      : texSymbol(node.name, node.primes);
  const inputs = list(node.inputs);
  return piece(`${symbol}${bracket(inputs)}`, 'atom', { tall: inputs.tall });
}

const known = new WeakMap<Expression, Piece>();

/** The piece of a node, set once however often the node stands or is looked at. */
function pieceOf(node: Expression): Piece {
  const ready = known.get(node);
  if (ready !== undefined) return ready;
  const made = set(node);
  known.set(node, made);
  return made;
}

function set(node: Expression): Piece {
  switch (node.kind) {
    case 'number': {
      const tex = texNumber(node.value);
      return piece(tex, tex.includes('cdot') ? 'product' : tex.includes('^') ? 'power' : 'atom', {
        numeral: true,
      });
    }
    case 'name':
      return piece(texSymbol(node.name, node.primes), 'atom');
    case 'indexed':
      return piece(texSymbol(node.name, node.primes, texOf(node.index).replaceAll(' ', '')), 'atom');
    case 'negate': {
      const of = pieceOf(node.of);
      if (of.holds === 'sum') return piece(bracket(of), 'atom', { minus: true, tall: of.tall });
      return of.minus ? piece(bracket(of), 'atom', { minus: true, tall: of.tall }) : { ...of, minus: true };
    }
    case 'binary': {
      const left = pieceOf(node.left);
      const right = pieceOf(node.right);
      switch (node.operator) {
        case '+':
        case '-':
          return sum(node.operator, left, right);
        case '*':
          return product(left, right);
        case '/':
          return quotient(left, right);
        case '^':
          return power(left, right, node.left);
      }
    }
    // falls through: the inner switch is exhaustive
    case 'call':
      return callPiece(node);
    case 'if': {
      const { test } = node;
      const when = `${texOf(test.left)} ${RELATION_TEX[test.relation]} ${texOf(test.right)}`;
      const rows = `${texOf(node.yes)} & \\text{if } ${when} \\\\ ${texOf(node.no)} & \\text{otherwise}`;
      return piece(`\\begin{cases} ${rows} \\end{cases}`, 'atom', { tall: true });
    }
  }
}

/** Most terms of a formula that is set; more fill no page that anyone reads. */
const MAX_SET = 3_000;

/**
 * A formula in TeX, as a mathematician would set it: fractions, roots, powers, no needless brackets. One of more than
 * 3,000 terms is only told of.
 */
export function texOf(expression: Expression): string {
  const { terms } = measure(expression);
  if (terms > MAX_SET) return `\\text{a formula of ${count(terms)} terms}`;
  return signed(pieceOf(expression));
}
