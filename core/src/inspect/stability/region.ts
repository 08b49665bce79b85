import { type Complex, complex } from './complex.ts';
import { growthAt, type StabilityLimits } from './stability-limits.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';

/** A part of the complex plane. */
export interface Box {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/** Limits on the axes, with the polynomial that they are those of. */
interface StabilityOfMethod extends StabilityLimits {
  readonly polynomial: StabilityPolynomial;
}

/** A short segment of the edge of the region: from one place to another. */
export type EdgeSegment = readonly [x1: number, y1: number, x2: number, y2: number];

/** Points along each side at which growth is looked at; fewer where each asks for the roots of a high degree. */
const POINTS = { most: 72, least: 24, fullUpTo: 6 };

function pointsFor({ above }: StabilityPolynomial): number {
  return Math.max(
    POINTS.least,
    Math.min(POINTS.most, Math.floor((POINTS.most * POINTS.fullUpTo) / above.length)),
  );
}

/** A region in the part of the plane that shows it: all of it where it is bounded, with some room around it. */
export interface RegionPicture {
  readonly box: Box;
  readonly edge: readonly EdgeSegment[];
  /** Horizontal lines through the region, from edge to edge, by which its stable side is hatched. */
  readonly hatching: readonly EdgeSegment[];
}

/** The part of the plane to begin with, by the limits on the axes. */
function boxBy({ real, imaginary, aStable }: StabilityLimits): Box {
  if (aStable) return { left: -8, right: 8, bottom: -6, top: 6 };
  const deep = Number.isFinite(real) ? Math.max(real, 0.5) : 8;
  const high = Number.isFinite(imaginary) ? Math.max(imaginary, 0.9 * deep, 0.5) : 6;
  return { left: -1.35 * deep, right: 0.5 * deep, bottom: -1.35 * high, top: 1.35 * high };
}

/**
 * The stability region of a method, in the part of the plane that shows it.
 *
 * @example regionPicture(inspection.stability!).box.left < -2 // true
 */
export function regionPicture(stability: StabilityOfMethod): RegionPicture {
  const { real, aStable } = stability;
  let picture = pictureIn(boxBy(stability), stability);
  // a bounded region may reach further off the axes than its limits on them
  for (let i = 0; !aStable && Number.isFinite(real) && i < WIDEN.times; i += 1) {
    const wider = widened(picture.box, picture.edge);
    if (wider === null) break;
    picture = pictureIn(wider, stability);
  }
  return picture;
}

/** The region of a method in a part of the plane. */
function pictureIn(box: Box, { polynomial, real }: Omit<StabilityOfMethod, 'aStable'>): RegionPicture {
  const extent = Number.isFinite(real) ? 'bounded' : 'unbounded';
  return excessPicture(box, extent, pointsFor(polynomial), (z) => growthAt(polynomial, z) - 1);
}

/** Lines of the hatching over the whole height of a picture. */
const HATCHED = 24;

/** How many times its size is drawn of an unbounded region, about the part that is to be seen: plots of any shape show more. */
const BEYOND = 2;

/**
 * Where something does not exceed 0 in a part of the plane.
 *
 * @param points along each side of the part
 */
export function excessPicture(
  box: Box,
  extent: 'bounded' | 'unbounded',
  points: number,
  excess: (z: Complex) => number,
): RegionPicture {
  const times = extent === 'bounded' ? 1 : BEYOND;
  const [x, y] = [(box.left + box.right) / 2, (box.bottom + box.top) / 2];
  const drawn: Box = {
    left: x + times * (box.left - x),
    right: x + times * (box.right - x),
    bottom: y + times * (box.bottom - y),
    top: y + times * (box.top - y),
  };
  const grid = excessOn(times * points, drawn, excess);
  return { box, edge: regionEdge(grid, drawn), hatching: hatchingOf(grid, drawn, times * HATCHED) };
}

function isSameBox(a: Box, b: Box): boolean {
  return a.left === b.left && a.right === b.right && a.bottom === b.bottom && a.top === b.top;
}

/**
 * The stability regions of several methods in one part of the plane, which shows all of each that is bounded.
 *
 * @example regionsTogether([inspection.stability!]).length // 1
 */
export function regionsTogether(stabilities: readonly StabilityOfMethod[]): readonly RegionPicture[] {
  const pictures = stabilities.map(regionPicture);
  const boxes = pictures.map(({ box: own }) => own);
  const box: Box = {
    left: Math.min(...boxes.map(({ left }) => left)),
    right: Math.max(...boxes.map(({ right }) => right)),
    bottom: Math.min(...boxes.map(({ bottom }) => bottom)),
    top: Math.max(...boxes.map(({ top }) => top)),
  };
  // one that fills the common part is drawn already
  return pictures.map((picture, i) =>
    isSameBox(picture.box, box) ? { ...picture, box } : pictureIn(box, stabilities[i]!),
  );
}

/** How often a box is widened, by which part of its size, and how near to a side the edge of the region may come. */
const WIDEN = { times: 16, part: 0.12, margin: 0.06 };

/** The box with more room at the sides that the edge of the region comes near to; null where there are none. */
function widened(box: Box, edge: readonly EdgeSegment[]): Box | null {
  const [width, height] = [box.right - box.left, box.top - box.bottom];
  const [dx, dy] = [WIDEN.margin * width, WIDEN.margin * height];
  const isLeft = edge.some(([x]) => x < box.left + dx);
  const isRight = edge.some(([x]) => x > box.right - dx);
  const isTop = edge.some(([, y]) => Math.abs(y) > box.top - dy);
  if (!isLeft && !isRight && !isTop) return null;
  const more = isTop ? (WIDEN.part * height) / 2 : 0;
  return {
    left: box.left - (isLeft ? WIDEN.part * width : 0),
    right: box.right + (isRight ? WIDEN.part * width : 0),
    bottom: box.bottom - more,
    top: box.top + more,
  };
}

/** Where on a side of a square nothing exceeds, as a part of it. */
function crossing(a: number, b: number): number {
  return Math.min(1, Math.max(0, -a / (b - a)));
}

/** By how much growth exceeds 1, at equal distances over a box, row by row from its bottom. */
type ExcessGrid = readonly (readonly number[])[];

/** Larger values count as this, so that places between them can be computed. */
const FAR = 1e6;

function excessOn(
  points: number,
  { left, right, bottom, top }: Box,
  excess: (z: Complex) => number,
): ExcessGrid {
  const [dx, dy] = [(right - left) / points, (top - bottom) / points];
  return Array.from({ length: points + 1 }, (_, j) =>
    Array.from({ length: points + 1 }, (__, i) =>
      Math.max(-FAR, Math.min(FAR, excess(complex(left + i * dx, bottom + j * dy)))),
    ),
  );
}

/** Horizontal lines through the places of a grid at which nothing exceeds. */
function hatchingOf(
  excess: ExcessGrid,
  { left, right, bottom, top }: Box,
  lines: number,
): readonly EdgeSegment[] {
  const points = excess.length - 1;
  const [dx, dy] = [(right - left) / points, (top - bottom) / points];
  const found: EdgeSegment[] = [];
  const apart = Math.max(1, Math.round(points / lines));
  for (let j = apart; j < points; j += apart) {
    const row = excess[j]!;
    const y = bottom + j * dy;
    let from: number | null = row[0]! <= 0 ? left : null;
    for (let i = 1; i <= points; i += 1) {
      const [before, here] = [row[i - 1]!, row[i]!];
      if (before <= 0 === here <= 0) continue;
      const x = left + (i - 1 + crossing(before, here)) * dx;
      if (from === null) from = x;
      else {
        found.push([from, y, x, y]);
        from = null;
      }
    }
    if (from !== null) found.push([from, y, right, y]);
  }
  return found;
}

/**
 * The edge of the stability region within a box: where an error neither grows nor shrinks (marching squares).
 */
function regionEdge(excess: ExcessGrid, { left, right, bottom, top }: Box): readonly EdgeSegment[] {
  const points = excess.length - 1;
  const [dx, dy] = [(right - left) / points, (top - bottom) / points];
  const pieces: EdgeSegment[] = [];
  for (let j = 0; j < points; j += 1)
    for (let i = 0; i < points; i += 1) {
      const [a, b] = [excess[j]![i]!, excess[j]![i + 1]!];
      const [c, d] = [excess[j + 1]![i]!, excess[j + 1]![i + 1]!];
      const [x, y] = [left + i * dx, bottom + j * dy];
      const cuts: [number, number][] = [];
      const cut = (from: number, to: number, at: (part: number) => [number, number]): void => {
        if (from <= 0 !== to <= 0) cuts.push(at(crossing(from, to)));
      };
      cut(a, b, (part) => [x + part * dx, y]);
      cut(c, d, (part) => [x + part * dx, y + dy]);
      cut(a, c, (part) => [x, y + part * dy]);
      cut(b, d, (part) => [x + dx, y + part * dy]);
      for (let k = 0; k + 1 < cuts.length; k += 2)
        pieces.push([cuts[k]![0], cuts[k]![1], cuts[k + 1]![0], cuts[k + 1]![1]]);
    }
  return pieces;
}
