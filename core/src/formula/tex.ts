import { count } from '../text/number-text.ts';
import type { Expression, IndexedLeaf, Leaf, NameLeaf, Relation } from './expression.ts';
import { measure } from './measure.ts';
import { isLooser, type Called, type Language, printer, type Tightness } from './printer.ts';
import { texNumber, texSymbol } from './tex-names.ts';

/** A part of a formula as TeX sets it. */
interface TexPart {
  readonly tex: string;
  readonly holds: Tightness;
  /** A leading minus, kept apart so that a product can move it to its front. */
  readonly minus: boolean;
  /** Ends in something behind which a plain letter can follow without a sign of multiplication. */
  readonly numeral: boolean;
  /** Tall: brackets around it must grow. */
  readonly tall: boolean;
  /**
   * What it is where it is short enough to follow a function without brackets: one letter, a number, a number of
   * letters.
   */
  readonly short: 'letter' | 'number' | 'product' | null;
  /** Primes follow it, so that a power takes brackets. */
  readonly primed: boolean;
  /** For a named function of one input: its symbol and the input, so that a power can be between them. */
  readonly named: { readonly symbol: string; readonly input: string } | null;
}

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

function part(tex: string, holds: Tightness, more: Partial<Omit<TexPart, 'tex' | 'holds'>> = {}): TexPart {
  return {
    tex,
    holds,
    minus: false,
    numeral: false,
    tall: false,
    short: null,
    primed: false,
    named: null,
    ...more,
  };
}

function signed(from: TexPart): string {
  return from.minus ? `-${from.tex}` : from.tex;
}

function bracket(from: TexPart): string {
  return from.tall ? `\\left(${signed(from)}\\right)` : `(${signed(from)})`;
}

function within(from: TexPart, least: Tightness): string {
  return from.minus || isLooser(from.holds, least) ? bracket(from) : from.tex;
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

function product(left: TexPart, right: TexPart): TexPart {
  const first = within({ ...left, minus: false }, 'product');
  const second = within(
    right.holds === 'product' && !right.minus ? { ...right, holds: 'power' } : right,
    'product',
  );
  const isShort = (left.short === 'letter' || left.short === 'number') && right.short === 'letter';
  return part(beside(first, second, left.numeral), 'product', {
    minus: left.minus,
    numeral: left.numeral && right.numeral,
    tall: left.tall || right.tall,
    short: isShort ? 'product' : null,
  });
}

function quotient(left: TexPart, right: TexPart): TexPart {
  return part(`\\frac{${left.tex}}{${signed(right)}}`, 'product', { minus: left.minus, tall: true });
}

function sum(operator: '+' | '-', left: TexPart, right: TexPart, space = ' '): TexPart {
  const flips = right.minus && right.holds !== 'sum';
  const shown = flips ? (operator === '+' ? '-' : '+') : operator;
  const needsBracket = right.holds === 'sum' && (operator === '-' || right.minus);
  const term = needsBracket ? bracket(right) : right.tex;
  return part(`${signed(left)}${space}${shown}${space}${term}`, 'sum', { tall: left.tall || right.tall });
}

function negation(of: TexPart): TexPart {
  if (of.holds === 'sum' || of.minus) return part(bracket(of), 'atom', { minus: true, tall: of.tall });
  return { ...of, minus: true, short: null, named: null };
}

function power(base: TexPart, right: TexPart): TexPart {
  const exponent = `{${signed(right)}}`;
  if (base.named !== null && !right.minus)
    return part(`${base.named.symbol}^${exponent}${base.named.input}`, 'product', { tall: base.tall });
  const below = base.primed ? bracket(base) : within(base, 'atom');
  return part(`${below}^${exponent}`, 'power', { tall: base.tall });
}

function numberPart(value: number): TexPart {
  const tex = texNumber(value);
  return part(tex, tex.includes('cdot') ? 'product' : tex.includes('^') ? 'power' : 'atom', {
    numeral: true,
    short: 'number',
  });
}

/** Functions that TeX sets with signs around their input. */
function surrounded(name: string, of: TexPart): TexPart | null {
  const around = (left: string, right: string): TexPart =>
    part(`${left}${signed(of)}${right}`, 'atom', { tall: of.tall });
  switch (name) {
    case 'sqrt':
      return around('\\sqrt{', '}');
    case 'cbrt':
      return around('\\sqrt[3]{', '}');
    case 'abs':
      return around('\\left|', '\\right|');
    case 'floor':
      return around('\\left\\lfloor ', '\\right\\rfloor');
    case 'exp':
      return of.tex.includes('\\begin') ? null : part(`e^{${signed(of)}}`, 'power');
    default:
      return null;
  }
}

/** A function of one input under its own symbol: without brackets around one letter or a number of letters. */
function namedFunction(name: string, of: TexPart): TexPart | null {
  const symbol = FUNCTION_TEX.get(name);
  if (symbol === undefined) return null;
  const isBare = (of.short === 'letter' || of.short === 'product') && !of.minus;
  const input = isBare ? ` ${of.tex}` : bracket(of);
  const takesPower = !symbol.includes('_') && name !== 'exp';
  return part(`${symbol}${input}`, 'product', {
    tall: of.tall,
    named: takesPower ? { symbol, input } : null,
  });
}

function list(inputs: readonly TexPart[]): TexPart {
  return part(inputs.map(signed).join(', '), 'sum', { tall: inputs.some((p) => p.tall) });
}

function called({ name, primes }: Called, inputs: readonly TexPart[]): TexPart {
  const [first, second] = inputs;
  if (primes === 0 && first !== undefined && inputs.length === 1) {
    const own = surrounded(name, first) ?? namedFunction(name, first);
    if (own !== null) return own;
  }
  if (name === 'mod' && primes === 0 && first !== undefined && second !== undefined && inputs.length === 2)
    return part(`${within(first, 'product')} \\bmod ${within(second, 'power')}`, 'sum');
  const symbol = primes === 0 ? (FUNCTION_TEX.get(name) ?? texSymbol(name)) : texSymbol(name, primes);
  const all = list(inputs);
  return part(`${symbol}${bracket(all)}`, 'atom', { tall: all.tall });
}

/** TeX as a language, with what it makes of names. */
function texLanguage<L extends Leaf>(leaf: (node: L) => TexPart): Language<TexPart, L> {
  return {
    number: numberPart,
    leaf,
    negation,
    sum,
    product,
    quotient,
    power,
    call: called,
    choice: ({ relation, left, right, yes, no }) => {
      const when = `${signed(left)} ${RELATION_TEX[relation]} ${signed(right)}`;
      const rows = `${signed(yes)} & \\text{if } ${when} \\\\ ${signed(no)} & \\text{otherwise}`;
      return part(`\\begin{cases} ${rows} \\end{cases}`, 'atom', { tall: true });
    },
  };
}

/** The first sign of equality of a line: plain, or one at which lines below each other are aligned. */
export type EqualsSign = '=' | '&=';

/** How the index of a name is set. */
export type IndexTex = (index: Expression) => string;

function texPrinter(indexTex: IndexTex, space = ' '): (tree: Expression) => string {
  const language = texLanguage((node: NameLeaf | IndexedLeaf) => {
    const index = node.kind === 'indexed' ? indexTex(node.index) : null;
    return part(texSymbol(node.name, node.primes, index), 'atom', {
      short: node.kind === 'name' ? 'letter' : null,
      primed: node.primes > 0,
    });
  });
  const print = printer({
    ...language,
    sum: (operator, left: TexPart, right: TexPart) => sum(operator, left, right, space),
  });
  return (tree) => signed(print(tree));
}

/** An index as it is typed, in one piece: `i-1`, `n+1`. */
export const indexTex: IndexTex = texPrinter((index) => indexTex(index), '');

const print = texPrinter(indexTex);

/** Most terms of a formula that is set; more fill no page that anyone reads. */
const MAX_SET = 3_000;

/**
 * A formula in TeX, as a mathematician would set it: fractions, roots, powers, no needless brackets. One of more than
 * 3,000 terms is only told of.
 *
 * @param index how an index is set, where not as it is typed
 * @example texOf(expression) // 'y + \\frac{h}{2}\\,(k_{1} + k_{2})'
 */
export function texOf(expression: Expression, index: IndexTex | null = null): string {
  const { terms } = measure(expression);
  if (terms > MAX_SET) return `\\text{a formula of ${count(terms)} terms}`;
  return (index === null ? print : texPrinter(index))(expression);
}
