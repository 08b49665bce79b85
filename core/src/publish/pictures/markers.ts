/** One colour a method, as the pages have them on light ground. */
const COLOURS = ['#B5490F', '#1F6FB2', '#0F7561', '#8E4585', '#9A7400', '#4A5A6A'] as const;

/** The colour of the method at a place in its study. */
export function colourOf(mark: number): string {
  return COLOURS[mark % COLOURS.length] ?? COLOURS[0];
}

function number(value: number): string {
  return String(Math.round(value * 100) / 100);
}

/** A closed figure through points about a centre. */
function figure(x: number, y: number, corners: readonly (readonly [number, number])[]): string {
  return `${corners.map(([dx, dy], i) => `${i === 0 ? 'M' : 'L'}${number(x + dx)} ${number(y + dy)}`).join('')}Z`;
}

function round(x: number, y: number, r: number): string {
  return `M${number(x - r)} ${number(y)}a${number(r)} ${number(r)} 0 1 0 ${number(2 * r)} 0a${number(r)} ${number(r)} 0 1 0 ${number(-2 * r)} 0Z`;
}

/** Outlines of markers of radius r, one a method; squares first, as the pages have them. */
const OUTLINES: readonly ((x: number, y: number, r: number) => string)[] = [
  (x, y, r) => {
    const a = 0.88 * r;
    return figure(x, y, [
      [-a, -a],
      [a, -a],
      [a, a],
      [-a, a],
    ]);
  },
  round,
  (x, y, r) =>
    figure(x, y, [
      [0, -1.15 * r],
      [1.05 * r, 0.75 * r],
      [-1.05 * r, 0.75 * r],
    ]),
  (x, y, r) =>
    figure(x, y, [
      [0, -1.2 * r],
      [1.2 * r, 0],
      [0, 1.2 * r],
      [-1.2 * r, 0],
    ]),
  (x, y, r) =>
    figure(x, y, [
      [0, 1.15 * r],
      [1.05 * r, -0.75 * r],
      [-1.05 * r, -0.75 * r],
    ]),
  (x, y, r) =>
    figure(
      x,
      y,
      [0, 1, 2, 3, 4, 5].map((i): readonly [number, number] => {
        const corner = HEXAGON[i] ?? [0, 0];
        return [1.1 * r * corner[0], 1.1 * r * corner[1]];
      }),
    ),
];

const HALF = Math.sqrt(3) / 2;
const HEXAGON: readonly (readonly [number, number])[] = [
  [1, 0],
  [0.5, HALF],
  [-0.5, HALF],
  [-1, 0],
  [-0.5, -HALF],
  [0.5, -HALF],
];

/** The outline of the marker of a method. */
export function outlineOf(mark: number, x: number, y: number, r: number): string {
  return OUTLINES[mark % OUTLINES.length]?.(x, y, r) ?? round(x, y, r);
}

/** Whether a marker is used once more, for a method behind the sixth. */
export function isSecondRound(mark: number): boolean {
  return Math.floor(mark / OUTLINES.length) % 2 === 1;
}
