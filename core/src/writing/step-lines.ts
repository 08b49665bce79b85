import { atCommas, closingOf } from '../text/brackets.ts';
import type { TokenLine, Token } from '../text/token.ts';

function token(text: string, like: Token, kind: Token['kind']): Token {
  return { kind, text, at: like.at };
}

/** The name on the left of a line `k1 = ...`; null for any other. */
function singleName({ tokens: [name, equals] }: TokenLine): Token | null {
  return name?.kind === 'name' && equals?.text === '=' ? name : null;
}

/** `T2(t, y) = ...` in a method. */
interface StepFunction {
  readonly name: string;
  readonly inputs: readonly [string, string];
  readonly body: readonly Token[];
}

function stepFunction({ tokens }: TokenLine): StepFunction | null {
  const [name, open, time, comma, value, close, equals, ...body] = tokens;
  const isFunction =
    name?.kind === 'name' &&
    name.text !== 'f' &&
    open?.text === '(' &&
    time?.kind === 'name' &&
    comma?.kind === 'comma' &&
    value?.kind === 'name' &&
    close?.text === ')' &&
    equals?.text === '=';
  if (!isFunction || body.length === 0) return null;
  const usesStep = body.some(({ kind, text }) => kind === 'name' && text === 'h');
  const isOfItself = body.some(({ text }) => text === name.text);
  return usesStep && !isOfItself ? { name: name.text, inputs: [time.text, value.text], body } : null;
}

/** Most tokens of a line into which functions are put. */
const MAX_TOKENS = 4_000;

/** The tokens of a line with the calls of a function replaced by its formula; null where a call is not one of two arguments. */
function withFormula(tokens: readonly Token[], of: StepFunction): readonly Token[] | null {
  const made: Token[] = [];
  for (let i = 0; i < tokens.length; i += 1) {
    const own = tokens[i];
    if (own === undefined) break;
    if (own.kind !== 'name' || own.text !== of.name) {
      made.push(own);
      continue;
    }
    const close = tokens[i + 1]?.text === '(' ? closingOf(tokens, i + 1) : -1;
    const inputs = close < 0 ? [] : atCommas(tokens.slice(i + 2, close));
    const [time, value] = inputs;
    if (time === undefined || value === undefined || inputs.length > 2) return null;
    const bracket = (text: '(' | ')'): Token => token(text, own, 'bracket');
    const put = (input: readonly Token[]): readonly Token[] =>
      input.length === 1 ? input : [bracket('('), ...input, bracket(')')];
    made.push(bracket('('));
    for (const part of of.body) {
      const isName = part.kind === 'name';
      if (isName && part.text === of.inputs[0]) made.push(...put(time));
      else if (isName && part.text === of.inputs[1]) made.push(...put(value));
      else made.push(part);
    }
    made.push(bracket(')'));
    if (made.length > MAX_TOKENS) return null;
    i = close;
  }
  return made;
}

/**
 * `w_{i+1} = w_i + h T2(t_i, w_i)` with the formula of T2, which uses the step size, put in. A function without h
 * stays: it is a derivative that the text types out.
 */
export function withStepFunctions(lines: readonly TokenLine[]): readonly TokenLine[] {
  let made = lines;
  for (let round = 0; round < lines.length; round += 1) {
    const own = made.find((line) => stepFunction(line) !== null);
    const of = own === undefined ? null : stepFunction(own);
    if (of === null) return made;
    const rest: TokenLine[] = [];
    for (const line of made) {
      if (line === own) continue;
      const tokens = withFormula(line.tokens, of);
      if (tokens === null) return lines;
      rest.push({ ...line, tokens });
    }
    made = rest;
  }
  return made;
}

/** Whether a line gives the value at the next grid point. */
function givesNext({ tokens }: TokenLine, variable: string): boolean {
  const [name, open, index, sign, one, close] = tokens;
  return (
    name?.text === variable &&
    open?.text === '[' &&
    index?.text === 'n' &&
    sign?.text === '+' &&
    one?.text === '1' &&
    close?.text === ']'
  );
}

function next(variable: string, like: Token): readonly Token[] {
  return [
    token(variable, like, 'name'),
    token('[', like, 'bracket'),
    token('n', like, 'name'),
    token('+', like, 'operator'),
    token('1', like, 'number'),
    token(']', like, 'bracket'),
  ];
}

function replaced(lines: readonly TokenLine[], names: ReadonlyMap<string, string>): readonly TokenLine[] {
  return lines.map((line) => ({
    ...line,
    tokens: line.tokens.flatMap((own): readonly Token[] => {
      const variable = own.kind === 'name' ? names.get(own.text) : undefined;
      if (variable === undefined) return [own];
      return variable === 't' || own.text.endsWith('old')
        ? [token(variable, own, 'name')]
        : next(variable, own);
    }),
  }));
}

/** Names such as `y_new` and `ynext` in a text that gives them on one line each; and `y_old`, `t_old`. */
function newNames(lines: readonly TokenLine[]): ReadonlyMap<string, string> {
  const given = lines.map((line) => singleName(line)?.text ?? '');
  const names = new Map<string, string>();
  for (const name of given) {
    const variable = /^([yxv])_?(?:new|next|n1|np1|nplus1)$/.exec(name)?.[1];
    if (variable === undefined || names.has(name)) continue;
    const isGivenOnce = given.filter((other) => other === name).length === 1;
    if (isGivenOnce && !lines.some((line) => givesNext(line, variable))) names.set(name, variable);
  }
  const values = [...names.values()];
  const isWhole = values.includes('y') ? values.length === 1 : values.length === 2;
  if (!isWhole) return new Map();
  for (const { tokens } of lines)
    for (const { kind, text } of tokens) {
      const variable = kind === 'name' ? /^([tyxv])_?old$/.exec(text)?.[1] : undefined;
      if (variable !== undefined && !given.includes(text)) names.set(text, variable);
    }
  return names;
}

/**
 * The new value under another name: `y_new = ...`, and `y = y + ...` or `y1 = ...` as the last line. Where y is set
 * earlier, its later uses may be of the old or of the new value, and the line is left as it is.
 */
export function withNewValue(lines: readonly TokenLine[]): readonly TokenLine[] {
  const named = newNames(lines);
  if (named.size > 0) return replaced(lines, named);
  const last = lines.at(-1);
  const name = last === undefined ? null : singleName(last);
  if (last === undefined || name === null || !/^y(?:_?n?p?1)?$/.test(name.text)) return lines;
  const isGiven = lines.some(
    (line) => givesNext(line, 'y') || (line !== last && singleName(line)?.text === name.text),
  );
  const usesPresent = last.tokens.slice(2).some(({ kind, text }) => kind === 'name' && text === 'y');
  const isUsed = lines.some(({ tokens }) =>
    tokens.some((own) => own !== name && own.kind === 'name' && own.text === name.text && name.text !== 'y'),
  );
  if (isGiven || !usesPresent || isUsed) return lines;
  return [...lines.slice(0, -1), { ...last, tokens: [...next('y', name), ...last.tokens.slice(1)] }];
}

/** Most lines that are put in order. */
const MAX_ORDERED = 1_000;

/** Lines in an order in which every name is given before it is used; as they are where there is none. */
export function inOrderOfUse(lines: readonly TokenLine[]): readonly TokenLine[] {
  const places = new Map<string, number>();
  lines.forEach((line, i) => {
    const name = singleName(line) ?? (stepOrDerivative(line) ? line.tokens[0] : undefined);
    if (name !== undefined) places.set(name.text, places.has(name.text) ? -1 : i);
  });
  const needs = lines.map(({ tokens }, i) => {
    const found = new Set<number>();
    for (const { kind, text } of tokens) {
      const place = kind === 'name' ? places.get(text) : undefined;
      if (place !== undefined && place >= 0 && place !== i) found.add(place);
    }
    return found;
  });
  if (needs.every((found, i) => [...found].every((place) => place < i))) return lines;
  if (lines.length > MAX_ORDERED) return lines;
  const ordered: TokenLine[] = [];
  const state = new Map<number, 'open' | 'done'>();
  const visit = (i: number): boolean => {
    const known = state.get(i);
    if (known !== undefined) return known === 'done';
    state.set(i, 'open');
    for (const place of needs[i] ?? []) if (!visit(place)) return false;
    state.set(i, 'done');
    const line = lines[i];
    if (line !== undefined) ordered.push(line);
    return true;
  };
  return lines.every((_, i) => visit(i)) ? ordered : lines;
}

/** A line `d2(t, y) = ...`. */
function stepOrDerivative({ tokens }: TokenLine): boolean {
  return tokens[1]?.text === '(' && tokens[5]?.text === ')' && tokens[6]?.text === '=';
}
