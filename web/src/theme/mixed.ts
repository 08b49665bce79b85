/** A colour between two, both as `#rrggbb`: the first where `part` is 0, the second where it is 1. */
export function mixed(one: string, other: string, part: number): string {
  const channel = (color: string, i: number): number =>
    Number.parseInt(color.slice(1 + 2 * i, 3 + 2 * i), 16);
  const both = [0, 1, 2].map((i) => Math.round((1 - part) * channel(one, i) + part * channel(other, i)));
  return `#${both.map((value) => value.toString(16).padStart(2, '0')).join('')}`;
}
