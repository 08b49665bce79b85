/** Code points from one to another, both within. */
type Stretch = readonly [from: number, to: number];

const LAST = 0x10ffff;

function hex(point: number): string {
  return point.toString(16).toUpperCase().padStart(4, '0');
}

/** Reads a `unicode-range` without wildcards: `U+0020-007E,U+2212`; all there is where nothing is given. */
function stretches(range: string | undefined): readonly Stretch[] {
  if (range === undefined) return [[0, LAST]];
  return range.split(',').map((part) => {
    const [from = '', to = from] = part.trim().replace(/^U\+/i, '').split('-');
    return [parseInt(from, 16), parseInt(to, 16)];
  });
}

function written(points: readonly Stretch[]): string {
  return points.map(([from, to]) => (from === to ? `U+${hex(from)}` : `U+${hex(from)}-${hex(to)}`)).join(',');
}

/**
 * Parts the code points of a face into those of a text and the others, as two values of `unicode-range`.
 *
 * @param range what the face is declared for; undefined for everything
 */
export function parted(
  range: string | undefined,
  text: string,
): { readonly common: string; readonly others: string } {
  const declared = stretches(range);
  const points = [...new Set(Array.from(text, (letter) => letter.codePointAt(0) ?? 0))]
    .filter((point) => declared.some(([from, to]) => from <= point && point <= to))
    .sort((a, b) => a - b);
  const common: Stretch[] = [];
  for (const point of points) {
    const last = common.at(-1);
    if (last?.[1] === point - 1) common[common.length - 1] = [last[0], point];
    else common.push([point, point]);
  }
  let others = [...declared];
  for (const [from, to] of common)
    others = others.flatMap(([a, b]): Stretch[] => {
      if (to < a || b < from) return [[a, b]];
      const left: Stretch[] = a < from ? [[a, from - 1]] : [];
      return b > to ? [...left, [to + 1, b]] : left;
    });
  return { common: written(common), others: written(others) };
}
