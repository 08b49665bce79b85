import { SPELLED_POWERS } from '../../formula/arithmetic.ts';
import type { Leaf, Tree } from '../../formula/expression.ts';
import { SIGNS, type Writing } from './language.ts';

/** How tightly a written piece holds together. */
type Holds = 'sum' | 'sign' | 'product' | 'atom';

interface Written {
  readonly text: string;
  readonly holds: Holds;
}

const TIGHT: Readonly<Record<Holds, number>> = { sum: 0, sign: 1, product: 2, atom: 3 };

function inBrackets({ text, holds }: Written, least: Holds): string {
  return TIGHT[holds] < TIGHT[least] ? `(${text})` : text;
}

/** Exact functions, which every language rounds alike. */
const EXACT: ReadonlySet<string> = new Set(['sqrt', 'abs', 'sign', 'floor', 'min', 'max', 'mod']);

/**
 * Writes a formula in a language with every operation in the order of the text: what is bracketed there is bracketed here,
 * squares and cubes are products, as a run has them.
 *
 * @param used is told every function whose rounding differs from language to language
 */
export function writeFormula<L extends Leaf>(
  tree: Tree<L>,
  writing: Pick<Writing, 'number' | 'power' | 'call' | 'choice'>,
  leaf: (node: L) => string,
  used: (name: string) => void,
): string {
  const of = (node: Tree<L>): Written => {
    switch (node.kind) {
      case 'number':
        return { text: writing.number(node.value), holds: 'atom' };
      case 'negate':
        return { text: `-${inBrackets(of(node.of), 'product')}`, holds: 'sign' };
      case 'binary': {
        const [left, right] = [of(node.left), of(node.right)];
        if (node.operator === '^') {
          if (node.right.kind === 'number' && SPELLED_POWERS.has(node.right.value)) {
            const base = inBrackets(left, 'atom');
            return { text: Array.from({ length: node.right.value }, () => base).join('*'), holds: 'product' };
          }
          used('^');
          return { text: writing.power(left.text, right.text), holds: 'atom' };
        }
        const isSum = node.operator === '+' || node.operator === '-';
        const [first, second] = isSum
          ? [inBrackets(left, 'sum'), inBrackets(right, 'product')]
          : [inBrackets(left, 'sign'), inBrackets(right, 'atom')];
        // a product that begins with a sign must not follow another one
        const holds = isSum ? 'sum' : left.holds === 'sign' ? 'sign' : 'product';
        return { text: `${first}${SIGNS[node.operator]}${second}`, holds };
      }
      case 'call': {
        if (!EXACT.has(node.name)) used(node.name);
        return {
          text: writing.call(
            node.name,
            node.inputs.map((input) => of(input).text),
          ),
          holds: 'atom',
        };
      }
      case 'if': {
        const { relation, left, right } = node.test;
        const text = writing.choice(
          of(left).text,
          relation,
          of(right).text,
          of(node.yes).text,
          of(node.no).text,
        );
        return { text, holds: 'atom' };
      }
      default:
        return { text: leaf(node), holds: 'atom' };
    }
  };
  return of(tree).text;
}
