/** Ends of both axes that a person has zoomed to. */
export interface Zoom {
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
}

/** What of an axis zooming needs: its pixels, and the value at each of them. */
export interface ZoomAxis {
  /** Pixels of its lower and its upper end. */
  readonly from: number;
  readonly to: number;
  readonly valueAt: (pixel: number) => number;
}

function moved(axis: ZoomAxis, from: number, to: number): readonly [number, number] {
  return [axis.valueAt(from), axis.valueAt(to)];
}

/** The ends of an axis after it was drawn out (factor below 1) or in about a pixel. */
export function zoomed(axis: ZoomAxis, about: number, factor: number): readonly [number, number] {
  return moved(axis, about - (about - axis.from) * factor, about + (axis.to - about) * factor);
}

/** The ends of an axis after it was dragged by some pixels. */
export function panned(axis: ZoomAxis, by: number): readonly [number, number] {
  return moved(axis, axis.from - by, axis.to - by);
}

/** Whether a zoom can be drawn: finite, and wide enough that its ends differ. */
export function isDrawable({ x, y }: Zoom): boolean {
  return [x, y].every(
    ([low, high]) =>
      Number.isFinite(low) &&
      Number.isFinite(high) &&
      high - low > 1e-13 * Math.max(Math.abs(low), Math.abs(high), Number.MIN_VALUE),
  );
}
