import type { Call, Conditional, Leaf, Operator, Relation, Tree } from './expression.ts';

/** How tightly a printed part holds together, from the loosest on. */
export type Tightness = 'sum' | 'sign' | 'product' | 'power' | 'atom';

const ORDER: Readonly<Record<Tightness, number>> = { sum: 0, sign: 1, product: 2, power: 3, atom: 4 };

/** Whether a part that holds together like `own` needs brackets where at least `least` is asked for. */
export function isLooser(own: Tightness, least: Tightness): boolean {
  return ORDER[own] < ORDER[least];
}

/** A choice between two values with its parts printed. */
export interface PrintedConditional<P> {
  readonly relation: Relation;
  readonly left: P;
  readonly right: P;
  readonly yes: P;
  readonly no: P;
}

/**
 * A language in which formulas are printed: what it makes of each operation whose inputs are printed already.
 *
 * @typeParam P a printed part: its text, and what brackets around it depend on
 * @typeParam L the leaves of the formulas
 */
export interface Language<P, L extends Leaf> {
  /** A number that is not negative; `digits` as it is typed, where it has more than a double keeps. */
  readonly number: (value: number, digits?: string) => P;
  readonly leaf: (node: L) => P;
  readonly negation: (of: P) => P;
  readonly sum: (operator: '+' | '-', left: P, right: P) => P;
  readonly product: (left: P, right: P) => P;
  readonly quotient: (left: P, right: P) => P;
  /** `whole`: the exponent where it is typed as a number, and null otherwise. */
  readonly power: (base: P, exponent: P, whole: number | null) => P;
  readonly call: (called: Called, inputs: readonly P[]) => P;
  readonly choice: (choice: PrintedConditional<P>) => P;
}

/** What is called: a function with the primes behind its name. */
export type Called = Pick<Call<Leaf>, 'name' | 'primes'>;

/** An operation on two printed parts. */
export function operation<P, L extends Leaf>(
  language: Language<P, L>,
  operator: Operator,
  [left, right]: readonly [P, P],
  whole: number | null = null,
): P {
  switch (operator) {
    case '+':
    case '-':
      return language.sum(operator, left, right);
    case '*':
      return language.product(left, right);
    case '/':
      return language.quotient(left, right);
    case '^':
      return language.power(left, right, whole);
  }
}

function choice<P, L extends Leaf>(
  language: Language<P, L>,
  { test, yes, no }: Conditional<L>,
  print: (node: Tree<L>) => P,
): P {
  const [left, right] = [print(test.left), print(test.right)];
  return language.choice({ relation: test.relation, left, right, yes: print(yes), no: print(no) });
}

/**
 * Prints formulas in a language, each node once however often it occurs in the tree.
 *
 * @example
 * const print = printer(textLanguage(words));
 * print(tree).text; // 'y + h*k1'
 */
export function printer<P, L extends Leaf>(language: Language<P, L>): (tree: Tree<L>) => P {
  const known = new WeakMap<Tree<L>, P>();
  const make = (node: Tree<L>): P => {
    switch (node.kind) {
      case 'number':
        return language.number(node.value, node.digits);
      case 'negate':
        return language.negation(print(node.of));
      case 'binary': {
        const { operator, left, right } = node;
        const whole = right.kind === 'number' ? right.value : null;
        return operation(language, operator, [print(left), print(right)], whole);
      }
      case 'call':
        return language.call(node, node.inputs.map(print));
      case 'if':
        return choice(language, node, print);
      default:
        return language.leaf(node);
    }
  };
  const print = (node: Tree<L>): P => {
    const ready = known.get(node);
    if (ready !== undefined) return ready;
    const made = make(node);
    known.set(node, made);
    return made;
  };
  return print;
}

/** A part in a line of text. */
export interface TextPart {
  readonly text: string;
  readonly holds: Tightness;
}

/** A text that needs no brackets anywhere. */
export function atom(text: string): TextPart {
  return { text, holds: 'atom' };
}

/** A part, in brackets where it holds together less tightly than its place needs. */
export function within({ text, holds }: TextPart, least: Tightness): string {
  return isLooser(holds, least) ? `(${text})` : text;
}

/** What languages that are written on a line say differently. */
export interface Words<L extends Leaf> {
  /** A number that is not negative; `digits` as it is typed, where it has more than a double keeps. */
  readonly number: (value: number, digits?: string) => string;
  readonly leaf: (node: L) => TextPart;
  readonly signs: Readonly<Record<Exclude<Operator, '^'>, string>>;
  readonly power: (base: TextPart, exponent: TextPart, whole: number | null) => TextPart;
  readonly call: (called: Called, inputs: readonly string[]) => string;
  /** A choice that can be anywhere. */
  readonly choice: (choice: PrintedConditional<string>) => string;
}

/**
 * A language written on a line: brackets where the order of operations needs them, so that every operation has the
 * inputs that it has in the tree, to the last bit. A sign behind an operator is bracketed.
 */
export function textLanguage<L extends Leaf>(words: Words<L>): Language<TextPart, L> {
  const { signs } = words;
  const factors = (sign: string, left: TextPart, right: TextPart): TextPart => ({
    text: `${within(left, 'sign')}${sign}${within(right, 'power')}`,
    // a product that begins with a sign must not follow another one
    holds: left.holds === 'sign' ? 'sign' : 'product',
  });
  return {
    number: (value, digits) => atom(words.number(value, digits)),
    leaf: words.leaf,
    negation: (of) => ({ text: `-${within(of, 'product')}`, holds: 'sign' }),
    sum: (operator, left, right) => ({
      text: `${left.text}${signs[operator]}${within(right, 'product')}`,
      holds: 'sum',
    }),
    product: (left, right) => factors(signs['*'], left, right),
    quotient: (left, right) => factors(signs['/'], left, right),
    power: words.power,
    call: (called, inputs) =>
      atom(
        words.call(
          called,
          inputs.map(({ text }) => text),
        ),
      ),
    choice: ({ relation, left, right, yes, no }) =>
      atom(words.choice({ relation, left: left.text, right: right.text, yes: yes.text, no: no.text })),
  };
}
