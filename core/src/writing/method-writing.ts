import { type Complaints, writing } from '../text/place.ts';
import type { TokenLine, Token } from '../text/token.ts';
import { inOrderOfUse, withNewValue, withStepFunctions } from './step-lines.ts';

const INDEX = /^[i-n]$/;
/** Names that carry an index in a method, whatever its unknown is called. */
const INDEXED = ['y', 't', 'f', 'x', 'v'];
/** A name with an index letter behind it: `y_n`. */
const SUBSCRIPT = /^([A-Za-z]\w*?)_([i-n])$/;
/** The same without a sign between: `yn`. */
const RUN_TOGETHER = /^([ytf])(n)$/;

function token(text: string, like: Token, kind: Token['kind'] = 'bracket'): Token {
  return { kind, text, at: like.at };
}

/** Names that lines of the text give by themselves: `k1 = ...` and `solve k1, k2 = ...`. */
function givenNames(lines: readonly TokenLine[]): ReadonlySet<string> {
  const names = new Set<string>();
  for (const { tokens } of lines) {
    const equals = tokens.findIndex(({ text }) => text === '=');
    const left = tokens.slice(0, Math.max(0, equals));
    if (left.every(({ kind }) => kind === 'name' || kind === 'comma'))
      for (const { text } of left) names.add(text);
  }
  return names;
}

function touches(left: Token, right: Token | undefined): boolean {
  return right !== undefined && left.at.to === right.at.from;
}

/** Complains of `y_n+1`, which may be the next value or one more than the present one; whether it did. */
function refuseTwoReadings(
  [own, sign, number]: readonly Token[],
  name: string,
  index: string,
  complaints: Complaints,
): boolean {
  if (
    own === undefined ||
    sign === undefined ||
    number?.kind !== 'number' ||
    !touches(own, sign) ||
    !touches(sign, number)
  )
    return false;
  if (sign.text !== '+' && sign.text !== '-') return false;
  const both = `${sign.text}${number.text}`;
  const at = { from: own.at.from, to: number.at.to };
  const readings = [`${name}[${index}${both}]`, `${name}[${index}] ${sign.text} ${number.text}`];
  complaints.add(
    at,
    `${own.text}${both} is ambiguous: write ${readings.join(' or ')}`,
    readings.flatMap((text) => writing(at, text)),
  );
  return true;
}

/** What names of a text may be. */
interface NamesOfText {
  readonly isIndexed: (name: string) => boolean;
  /** Names that lines give. */
  readonly given: ReadonlySet<string>;
}

/**
 * `y_n` as y[n]; where the text gives such a name itself it is left unchanged.
 *
 * @param refused is called where something was complained of
 */
function withSubscripts(
  tokens: readonly Token[],
  { isIndexed, given }: NamesOfText,
  complaints: Complaints,
  refused: () => void,
): readonly Token[] {
  if (!tokens.some(({ text }) => SUBSCRIPT.test(text) || RUN_TOGETHER.test(text))) return tokens;
  return tokens.flatMap((own, i): readonly Token[] => {
    if (own.kind !== 'name' || given.has(own.text)) return [own];
    const [, name, index] = SUBSCRIPT.exec(own.text) ?? RUN_TOGETHER.exec(own.text) ?? [];
    if (name === undefined || index === undefined || !isIndexed(name)) return [own];
    if (refuseTwoReadings(tokens.slice(i, i + 3), name, index, complaints)) refused();
    return [token(name, own, 'name'), token('[', own), token(index, own, 'name'), token(']', own)];
  });
}

/** `y(n+1)` as y[n+1]: an index letter alone, or with a whole number, is no input of anything. */
function withIndexBrackets(tokens: readonly Token[], isIndexed: (name: string) => boolean): readonly Token[] {
  if (!tokens.some(({ text }) => text === '(')) return tokens;
  const made = [...tokens];
  tokens.forEach((own, i) => {
    const [open, index, third, fourth, fifth] = tokens.slice(i + 1, i + 6);
    if (own.kind !== 'name' || !isIndexed(own.text) || open?.text !== '(') return;
    if (index?.kind !== 'name' || !INDEX.test(index.text)) return;
    const isShifted = (third?.text === '+' || third?.text === '-') && fourth?.kind === 'number';
    const close = isShifted ? fifth : third;
    if (close?.text !== ')') return;
    made[i + 1] = token('[', open);
    made[i + (isShifted ? 5 : 3)] = token(']', close);
  });
  return made;
}

/** What a text calls its unknown and its index: `u` and `k` of `u[k+1] = ...`; null where no line says so. */
function namesOf(lines: readonly TokenLine[]): { readonly unknown: string; readonly index: string } | null {
  for (const { tokens } of lines) {
    const [name, open, index, plus, one, close, equals] = tokens;
    if (name?.kind !== 'name' || open?.text !== '[' || index?.kind !== 'name' || !INDEX.test(index.text))
      continue;
    if (plus?.text === '+' && one?.text === '1' && close?.text === ']' && equals?.text === '=')
      return { unknown: name.text, index: index.text };
  }
  return null;
}

function uses(lines: readonly TokenLine[], name: string): boolean {
  return lines.some(({ tokens }) => tokens.some(({ kind, text }) => kind === 'name' && text === name));
}

function renamed(
  lines: readonly TokenLine[],
  from: string,
  to: string,
  isMeant: (tokens: readonly Token[], i: number) => boolean,
): readonly TokenLine[] {
  return lines.map((line) => ({
    ...line,
    tokens: line.tokens.map((own, i) =>
      own.kind === 'name' && own.text === from && isMeant(line.tokens, i) ? token(to, own, 'name') : own,
    ),
  }));
}

function inIndex(tokens: readonly Token[], i: number): boolean {
  return tokens[i - 1]?.text === '[';
}

/** Whether a text calls f at x and another name, and never has a t: then x is its independent variable. */
function callsAtX(lines: readonly TokenLine[]): boolean {
  const isCalled = lines.some(({ tokens }) =>
    tokens.some((own, i) => own.text === 'f' && tokens[i + 1]?.text === '(' && tokens[i + 2]?.text === 'x'),
  );
  const hasIndex = lines.some(({ tokens }) =>
    tokens.some((own, i) => own.text === 'x' && tokens[i + 1]?.text === '[' && tokens[i + 3]?.text === '+'),
  );
  return isCalled && !hasIndex && !uses(lines, 't');
}

/** `f_x`, the derivative by what represents t or y, as f_t or f_y. */
function withPartials(lines: readonly TokenLine[], letter: string, to: 't' | 'y'): readonly TokenLine[] {
  return lines.map((line) => ({
    ...line,
    tokens: line.tokens.map((own, i) => {
      const letters = own.kind === 'name' ? /^f_([a-z]+)$/.exec(own.text)?.[1] : undefined;
      return letters === undefined || line.tokens[i + 1]?.text !== '('
        ? own
        : token(`f_${letters.replaceAll(letter, to)}`, own, 'name');
    }),
  }));
}

/** The name of a left side such as `u_{k+1}`, before its unknown is known. */
function targetOf({ tokens }: TokenLine): string | null {
  const [name, open] = tokens;
  return name?.kind === 'name' && (open?.text === '[' || open?.text === '(') ? name.text : null;
}

/** A method in its own notation, and the names that its text has for t and y. */
interface MethodWriting {
  readonly lines: readonly TokenLine[];
  readonly called: { readonly time: string; readonly value: string };
}

/**
 * The lines of a method in its own notation, from the ways in which formulas are written on boards and in books: `y_n`,
 * `y(n+1)`, another index letter, another name of the unknown, x for the independent variable.
 *
 * @returns the lines, and what the text calls t and y
 */
export function methodWriting(typed: readonly TokenLine[], complaints: Complaints): MethodWriting {
  const lines = withStepFunctions(typed);
  const given = givenNames(lines);
  const targets = new Set(lines.map(targetOf).filter((name) => name !== null));
  const isIndexed = (name: string): boolean => INDEXED.includes(name) || targets.has(name);
  // a line that was complained of is not complained of again
  const dropped = new Set<TokenLine>();
  const indexed = lines
    .map((line) => {
      const tokens = withSubscripts(line.tokens, { isIndexed, given }, complaints, () => {
        dropped.add(line);
      });
      return { line, made: { ...line, tokens: withIndexBrackets(tokens, isIndexed) } };
    })
    .filter(({ line }) => !dropped.has(line))
    .map(({ made }) => made);
  const names = namesOf(indexed);
  let made: readonly TokenLine[] = indexed;
  if (names !== null && names.index !== 'n') made = renamed(made, names.index, 'n', inIndex);
  let [time, value] = ['t', 'y'];
  if (names !== null && !['y', 'x', 'v'].includes(names.unknown) && !uses(made, 'y')) {
    value = names.unknown;
    made = withPartials(
      renamed(made, value, 'y', () => true),
      value,
      'y',
    );
  }
  if (callsAtX(made)) {
    time = 'x';
    made = withPartials(
      renamed(made, time, 't', () => true),
      time,
      't',
    );
  }
  return { lines: inOrderOfUse(withNewValue(made)), called: { time, value } };
}
