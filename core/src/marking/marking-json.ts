import type { Marking } from './mark-column.ts';

/** A value of one component, or one for each where several are given. */
type Values = number | null | readonly (number | null)[];

/** A marking as JSON. */
export interface MarkingJson {
  readonly rows: readonly {
    readonly n: number;
    readonly given: Values;
    readonly right: Values;
    readonly fromOwn: Values;
    readonly agrees: boolean;
  }[];
  /** Significant digits, at most, of what was given. */
  readonly digits: number;
  readonly firstWrong: number | null;
  readonly mistakes: readonly {
    readonly kind: string;
    readonly line: number | null;
    readonly given: string | null;
    readonly right: string | null;
    readonly explains: number;
    readonly sentence: string;
  }[];
}

function valuesOf(values: readonly (number | null)[] | null): Values {
  if (values === null) return null;
  return values.length === 1 ? (values[0] ?? null) : values;
}

/** The lines of a mistake one under the other; null where it changes none. */
function together(lines: readonly string[]): string | null {
  return lines.length === 0 ? null : lines.join('\n');
}

/**
 * A marking as it is printed as JSON.
 *
 * @example markingJson(marking).firstWrong // 5
 */
export function markingJson({ rows, digits, firstWrong, mistakes }: Marking): MarkingJson {
  return {
    rows: rows.map(({ n, given, right, fromOwn, agrees }) => ({
      n,
      given: valuesOf(given),
      right: valuesOf(right),
      fromOwn: valuesOf(fromOwn),
      agrees,
    })),
    digits: digits.significant,
    firstWrong,
    mistakes: mistakes.map(({ kinds, lines, explains, sentence }) => ({
      kind: kinds.join(' + '),
      line: lines[0]?.line ?? null,
      given: together(lines.map((line) => line.given)),
      right: together(lines.map((line) => line.right)),
      explains,
      sentence,
    })),
  };
}
