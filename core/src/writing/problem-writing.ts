import { depths } from '../text/brackets.ts';
import type { TokenLine, Token } from '../text/token.ts';
import { UNNAMED } from './foreign/problem-forms.ts';

function token(text: string, like: Token, kind: Token['kind']): Token {
  return { kind, text, at: like.at };
}

function primes(count: number, like: Token): readonly Token[] {
  return Array.from({ length: count }, () => token("'", like, 'prime'));
}

const texts = (tokens: readonly Token[]): string => tokens.map(({ text }) => text).join(' ');

/**
 * `dy / dt`, `d ^ 2 x / dt ^ 2`, `d ^ 2x`: the texts of a derivative written as a fraction, with a space between
 * tokens.
 */
const FRACTION = /^\(? ?d(?: ?\^ ?(\d))? ?([A-Za-z]\w*) ?\)? ?\/ ?\(? ?d[A-Za-z]\w*(?: \^ (\d))? ?\)?$/;

/** `dy/dt` on a left side as y'. */
function withFraction(tokens: readonly Token[]): readonly Token[] {
  if (!/^(?:d|\($)/.test(tokens[0]?.text ?? '')) return tokens;
  const equals = tokens.findIndex(({ text }) => text === '=');
  if (equals < 3) return tokens;
  const left = tokens.slice(0, equals);
  const [first] = left;
  const [, above, name, below] = FRACTION.exec(texts(left)) ?? [];
  if (first === undefined || name === undefined || (above ?? '1') !== (below ?? '1')) return tokens;
  return [token(name, first, 'name'), ...primes(Number(above ?? 1), first), ...tokens.slice(equals)];
}

/** `dy/dt` inside an equation as y', where the text names no dy itself. */
function withFractions(tokens: readonly Token[], given: ReadonlySet<string>): readonly Token[] {
  if (!tokens.some(({ text }) => text === '/')) return tokens;
  const made: Token[] = [];
  for (let i = 0; i < tokens.length; i += 1) {
    const [above, sign, below] = tokens.slice(i, i + 3);
    const name = /^d([A-Za-z]\w*)$/.exec(above?.text ?? '')?.[1];
    const isRhs = sign?.text === '/' && /^d[a-z]$/.test(below?.text ?? '') && above?.kind === 'name';
    if (isRhs && name !== undefined && !given.has(above.text) && !given.has(below?.text ?? '')) {
      made.push(token(name, above, 'name'), ...primes(1, above));
      i += 2;
    } else if (tokens[i] !== undefined) made.push(tokens[i]!);
  }
  return made.length === tokens.length ? tokens : made;
}

/** Name and primes of a left side `y'` or `y'(t)`, and the name in its bracket; null for any other. */
function primedLeft(tokens: readonly Token[]): {
  readonly name: string;
  readonly order: number;
  readonly inside: string | null;
  readonly end: number;
} | null {
  const [name] = tokens;
  if (name?.kind !== 'name') return null;
  let i = 1;
  while (tokens[i]?.kind === 'prime') i += 1;
  const order = i - 1;
  const [open, inside, close, equals] = tokens.slice(i, i + 4);
  if (open?.text === '=') return { name: name.text, order, inside: null, end: i };
  const isOfName =
    open?.text === '(' && inside?.kind === 'name' && close?.text === ')' && equals?.text === '=';
  return isOfName ? { name: name.text, order, inside: inside.text, end: i } : null;
}

/** `y(t)` as y in a formula, for the unknowns that are written so. */
function withoutArguments(
  tokens: readonly Token[],
  names: ReadonlySet<string>,
  variable: string,
): readonly Token[] {
  const dropped = new Set<number>();
  tokens.forEach((own, i) => {
    if (own.kind !== 'name' || !names.has(own.text)) return;
    let open = i + 1;
    while (tokens[open]?.kind === 'prime') open += 1;
    if (tokens[open]?.text !== '(' || tokens[open + 1]?.text !== variable || tokens[open + 2]?.text !== ')')
      return;
    for (let k = open; k < open + 3; k += 1) dropped.add(k);
  });
  return tokens.filter((_, i) => !dropped.has(i));
}

/**
 * `y'(t) = -y(t)` as y' = -y. Where the text has an equation for a derivative at least as high, `x'(t) = ...` stays
 * what it is: an exact solution.
 */
function withoutTimes(lines: readonly TokenLine[]): readonly TokenLine[] {
  const lefts = lines.map(({ tokens }) => primedLeft(tokens));
  const bare = new Map<string, number>();
  const called = new Map<string, number>();
  for (const left of lefts) {
    if (left === null || left.order === 0) continue;
    const into = left.inside === null ? bare : called;
    into.set(left.name, Math.max(into.get(left.name) ?? 0, left.order));
  }
  const unknowns = new Set([...called].filter(([name]) => !bare.has(name)).map(([name]) => name));
  return lines.map((line, i) => {
    const left = lefts[i];
    if (left === null || left === undefined || left.inside === null || left.order === 0) return line;
    if (!unknowns.has(left.name) || left.order !== called.get(left.name)) return line;
    const { tokens } = line;
    return { ...line, tokens: withoutArguments(tokens, unknowns, left.inside) };
  });
}

/** `f(t, y) = ...` as y' = ..., the right-hand side of a problem of one equation. */
function withRhs(lines: readonly TokenLine[]): readonly TokenLine[] {
  const isRhs = ({ tokens }: TokenLine): boolean => {
    const [f, open, t, comma, y, close, equals] = tokens;
    return (
      f?.text === 'f' &&
      open?.text === '(' &&
      t?.kind === 'name' &&
      comma?.kind === 'comma' &&
      y?.kind === 'name' &&
      close?.text === ')' &&
      equals?.text === '='
    );
  };
  if (
    lines.filter(isRhs).length !== 1 ||
    lines.some(({ tokens }) => tokens.some(({ kind }) => kind === 'prime'))
  )
    return lines;
  return lines.map((line) => {
    const y = line.tokens[4];
    return isRhs(line) && y !== undefined
      ? { ...line, tokens: [y, ...primes(1, y), ...line.tokens.slice(6)] }
      : line;
  });
}

/** `t in [0, 3]` and `t from 0 to 3` as 0 <= t <= 3. */
function withInterval(tokens: readonly Token[]): readonly Token[] {
  const [variable, word, ...rest] = tokens;
  if (variable?.kind !== 'name' || word === undefined) return tokens;
  const between = (low: readonly Token[], high: readonly Token[]): readonly Token[] =>
    low.length === 0 || high.length === 0
      ? tokens
      : [...low, token('<=', word, 'relation'), variable, token('<=', word, 'relation'), ...high];
  if (word.text === 'from') {
    const to = rest.findIndex(({ text }) => text === 'to');
    return to < 0 ? tokens : between(rest.slice(0, to), rest.slice(to + 1));
  }
  if (word.text !== 'in' || rest[0]?.text !== '[' || rest.at(-1)?.text !== ']') return tokens;
  const comma = rest.findIndex(({ kind }) => kind === 'comma');
  return comma < 0 ? tokens : between(rest.slice(1, comma), rest.slice(comma + 1, -1));
}

/** `y(0) = y'(0) = 0` as one statement for each left side. */
function withoutChains(lines: readonly TokenLine[]): readonly TokenLine[] {
  return lines.flatMap((line): readonly TokenLine[] => {
    const depth = depths(line.tokens);
    const signs = line.tokens.flatMap(({ text }, i) => (text === '=' && depth[i] === 0 ? [i] : []));
    if (signs.length < 2) return [line];
    const lefts = signs.map((sign, k) => line.tokens.slice(k === 0 ? 0 : (signs[k - 1] ?? 0) + 1, sign));
    const isPlain = lefts.every((left) => /^[A-Za-z]\w*(?: ')* \( [^()]* \)$/.test(texts(left)));
    const last = signs.at(-1) ?? 0;
    return isPlain
      ? lefts.map((left) => ({ ...line, tokens: [...left, ...line.tokens.slice(last)] }))
      : [line];
  });
}

/** The names of a text that stand for its independent variable, where its form says so: dy/dx, y(x), f(x, y). */
function variableOf(lines: readonly TokenLine[]): string | null {
  for (const { tokens } of lines) {
    const text = texts(tokens);
    const found =
      /(?:^|[^\w])d(?: \^ \d)? ?\w* ?\)? \/ \(? ?d([a-z])(?: \^ \d)?(?=$|[^\w])/.exec(text) ??
      /^[A-Za-z]\w*(?: ')* \( ([a-z]) \) =/.exec(text) ??
      /^f \( ([a-z]) ,/.exec(text);
    if (found?.[1] !== undefined && found[1] !== UNNAMED) return found[1];
  }
  return null;
}

/** Whether tokens give an interval or an exact solution in the variable that a text did not name. */
function isOfUnnamed(tokens: readonly Token[]): boolean {
  return /^t in \[|^[A-Za-z]\w* \( t \) =/.test(texts(tokens));
}

/** An interval and exact solutions that do not name their variable get the one of the rest of the text. */
function withVariable(lines: readonly TokenLine[]): readonly TokenLine[] {
  const others = lines.filter(({ tokens }) => !isOfUnnamed(tokens));
  const uses = (name: string, of: readonly TokenLine[]): boolean =>
    of.some(({ tokens }) => tokens.some((own) => own.kind === 'name' && own.text === name));
  if (others.length === lines.length || uses(UNNAMED, others)) return lines;
  const isUnknown = others.some(({ tokens: [name, sign] }) => name?.text === 'x' && sign?.kind === 'prime');
  const isGiven = others.some(({ tokens: [name, sign] }) => name?.text === 'x' && sign?.text === '=');
  const variable = variableOf(others) ?? (uses('x', others) && !isUnknown && !isGiven ? 'x' : null);
  if (variable === null) return lines;
  return lines.map((line) =>
    isOfUnnamed(line.tokens)
      ? {
          ...line,
          tokens: line.tokens.map((own) => (own.text === UNNAMED ? token(variable, own, 'name') : own)),
        }
      : line,
  );
}

/** Names that carry an index somewhere in the text. */
function familiesOf(lines: readonly TokenLine[]): ReadonlySet<string> {
  const names = new Set<string>();
  for (const { tokens } of lines)
    tokens.forEach((own, i) => {
      if (own.kind === 'name' && tokens[i + 1]?.text === '[') names.add(own.text);
    });
  return names;
}

/** `u_0` as u[0], where u is a family. */
function withElements(tokens: readonly Token[], families: ReadonlySet<string>): readonly Token[] {
  if (families.size === 0 || !tokens.some(({ text }) => text.includes('_'))) return tokens;
  return tokens.flatMap((own): readonly Token[] => {
    const [, name, index] = own.kind === 'name' ? (/^(\w+?)_(\d+)$/.exec(own.text) ?? []) : [];
    if (name === undefined || index === undefined || !families.has(name)) return [own];
    return [
      token(name, own, 'name'),
      token('[', own, 'bracket'),
      token(index, own, 'number'),
      token(']', own, 'bracket'),
    ];
  });
}

/**
 * The lines of a problem in its own notation, from the ways in which problems are written on boards and in books:
 * `dy/dt`, `y'(t)`, `f(t, y) = ...`, `t in [0, 3]`.
 */
export function problemWriting(typed: readonly TokenLine[]): readonly TokenLine[] {
  const lines = withVariable(withoutChains(typed));
  const families = familiesOf(lines);
  const given = new Set(
    lines.flatMap(({ tokens: [name, equals] }) =>
      equals?.text === '=' && name !== undefined ? [name.text] : [],
    ),
  );
  const plain = lines.map((line) => ({
    ...line,
    tokens: withFractions(withInterval(withFraction(withElements(line.tokens, families))), given),
  }));
  return withoutTimes(withRhs(plain));
}
