import { randomFrom } from '../../elementary/random.ts';
import type { Problem } from '../../problem/problem.ts';
import { isExactSolution } from '../../problem/statement.ts';
import { fixed } from '../../text/number-text.ts';
import { Refusal } from '../../text/refusal.ts';

/** A number of the problem and what it may be replaced by, as texts. */
export interface VariantChoices {
  readonly name: string;
  readonly values: readonly string[];
}

/** What one sheet has in place of the numbers of the problem. */
export type Variant = readonly { readonly name: string; readonly value: string }[];

/** Most values of one name, and most sheets. */
const MAX_VALUES = 1000;
const MAX_SHEETS = 500;

function decimals(text: string): number {
  return /\.(\d+)$/.exec(text)?.[1]?.length ?? 0;
}

/** Values from the first on in equal steps to the last, with as many decimals as they were written with. */
function inSteps(
  name: string,
  [first, last]: readonly [string, string],
  step: number,
  digits: number,
): readonly string[] {
  const [from, to] = [Number(first), Number(last)];
  const count = Math.round((to - from) / step) + 1;
  const isEven = Math.abs(from + (count - 1) * step - to) < 1e-9 * Math.max(1, Math.abs(to));
  if (!Number.isFinite(count) || count < 1 || !isEven)
    throw new Refusal('form', `${name}: the steps from ${first} do not reach ${last}`);
  if (count > MAX_VALUES) throw new Refusal('size', `${name} has more than ${MAX_VALUES} values`);
  return Array.from({ length: count }, (_, i) => fixed(from + i * step, digits));
}

function valuesOf(name: string, text: string): readonly string[] {
  const range = /^(-?\d+)\s*\.\.\s*(-?\d+)$/.exec(text);
  if (range !== null) return inSteps(name, [range[1] ?? '', range[2] ?? ''], 1, 0);
  const list = text.split(',').map((value) => value.trim());
  const dots = list.findIndex((value) => value === '...' || value === '…');
  if (dots < 0) return list;
  const [first = '', second = '', last = ''] = [list[0], list[1], list[3]];
  if (
    dots !== 2 ||
    list.length !== 4 ||
    ![first, second, last].every((v) => v !== '' && Number.isFinite(Number(v)))
  )
    throw new Refusal(
      'form',
      `${name}: write two values, three dots and the last, as in 0.2, 0.25, ..., 0.6`,
    );
  const digits = Math.max(...[first, second, last].map(decimals));
  return inSteps(name, [first, last], Number(second) - Number(first), digits);
}

/**
 * Reads what numbers of a problem may be: `k in 0.2, 0.25, ..., 0.6; level(0) in 1..5; w in pi/2, pi`.
 *
 * @throws Refusal for what is of another form
 * @example parseChoices('k in 1..3')[0]?.values.length // 3
 */
export function parseChoices(text: string): readonly VariantChoices[] {
  return text
    .split(/[;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => {
      const [, name, values] = /^(\S+)\s+in\s+(.+)$/.exec(part) ?? [];
      if (name === undefined || values === undefined)
        throw new Refusal(
          'form',
          `"${part}" is not a list of values; write k in 0.2, 0.25, ..., 0.6 or start in 1..5`,
        );
      const list = valuesOf(name, values);
      if (list.some((value) => value === '')) throw new Refusal('form', `${name}: a value is missing`);
      return { name, values: list };
    });
}

/** Where the value of a parameter or an initial value is in the text of a problem. */
function placeOf(
  { statements, independent }: Problem,
  name: string,
): { readonly from: number; readonly to: number } {
  for (const statement of statements) {
    if (statement.kind === 'parameter' && statement.name === name) return statement.value.at;
    if (statement.kind !== 'value' || isExactSolution(statement, independent)) continue;
    const { target, value } = statement;
    if (target.index !== null) continue;
    const own = `${target.name}${"'".repeat(target.primes)}`;
    if (own === name || name.replace(/\(.*\)$/, '') === own) return value.at;
  }
  const known = statements.flatMap((statement) => (statement.kind === 'parameter' ? [statement.name] : []));
  throw new Refusal(
    'missing',
    `there is no parameter and no initial value ${name}; there are the parameters ${known.join(', ') || 'none'}`,
  );
}

/** The text of a problem with other numbers. */
export function withVariant(problem: Problem, variant: Variant): string {
  const places = variant
    .map(({ name, value }) => ({ ...placeOf(problem, name), value }))
    .sort((a, b) => b.from - a.from);
  return places.reduce(
    (text, { from, to, value }) => `${text.slice(0, from)}${value}${text.slice(to)}`,
    problem.text,
  );
}

/**
 * That sheets repeat others, where there are fewer combinations of values than sheets; null otherwise.
 *
 * @example repeatedSheets(parseChoices('k in 1, 2'), 3) // 'There are 2 combinations of these values for 3 variants: some are alike.'
 */
export function repeatedSheets(choices: readonly VariantChoices[], sheets: number): string | null {
  const all = choices.reduce((product, { values }) => product * new Set(values).size, 1);
  return choices.length === 0 || sheets <= all
    ? null
    : `There ${all === 1 ? 'is one combination' : `are ${all} combinations`} of these values for ${sheets} variants: some are alike.`;
}

/**
 * As many variants as there are sheets: all different as long as there are enough of them, and the same for the same
 * seed.
 */
export function variantsOf(
  choices: readonly VariantChoices[],
  sheets: number,
  seed: number,
): readonly Variant[] {
  if (!Number.isSafeInteger(sheets) || sheets < 1 || sheets > MAX_SHEETS)
    throw new Refusal('size', `the number of sheets must be an integer from 1 to ${MAX_SHEETS}`);
  const all = choices.reduce((count, { values }) => count * values.length, 1);
  const random = randomFrom(seed);
  const at = (index: number): Variant => {
    let rest = index;
    return choices.map(({ name, values }) => {
      const i = rest % values.length;
      rest = (rest - i) / values.length;
      return { name, value: values[i] ?? '' };
    });
  };
  // a shuffle of the first of all variants, of which only the places that were changed are kept
  const moved = new Map<number, number>();
  return Array.from({ length: sheets }, (_, i) => {
    const round = i % all;
    if (round === 0) moved.clear();
    const other = round + Math.floor(random() * (all - round));
    const chosen = moved.get(other) ?? other;
    moved.set(other, moved.get(round) ?? round);
    return at(chosen);
  });
}
