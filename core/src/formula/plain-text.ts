import { primed } from '../text/primes.ts';
import type { Expression, IndexedLeaf, NameLeaf } from './expression.ts';
import { atom, printer, type TextPart, textLanguage, within } from './printer.ts';

function leafText(node: NameLeaf | IndexedLeaf): TextPart {
  if (node.kind === 'name') return atom(primed(node.name, node.primes));
  return atom(primed(`${node.name}[${plainText(node.index)}]`, node.primes));
}

const print = printer<TextPart, NameLeaf | IndexedLeaf>(
  textLanguage({
    number: String,
    leaf: leafText,
    signs: { '+': ' + ', '-': ' - ', '*': '*', '/': '/' },
    power: (base, exponent) => ({
      text: `${within(base, 'atom')}^${within(exponent, 'power')}`,
      holds: 'power',
    }),
    call: ({ name, primes }, inputs) => `${primed(name, primes)}(${inputs.join(', ')})`,
    choice: ({ relation, left, right, yes, no }) => `if(${left} ${relation} ${right}, ${yes}, ${no})`,
  }),
);

/**
 * A formula in the notation itself, with the brackets that its order of operations needs and no others.
 *
 * @example plainText(problem.blocks[0]!.rhs) // '-k*sqrt(level)'
 */
export function plainText(expression: Expression): string {
  return print(expression).text;
}
