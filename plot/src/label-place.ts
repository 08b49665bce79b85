/** A place on the canvas, in pixels. */
export interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** A rectangle on the canvas, in pixels. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Parts of a line at which its label may be, and how far from it, the better ones first. */
const PARTS = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.1, 0.9];
const AWAY = [18, -10, 32, -24];
/** Pixels that are left free around a point. */
const POINT = 6;

export function meets(a: Box, b: Box): boolean {
  return a.left < b.right && a.right > b.left && a.top < b.bottom && a.bottom > b.top;
}

/** The box of a text whose baseline begins at a place. */
export function boxOf({ x, y }: Pixel, width: number, height: number): Box {
  return { left: x - 2, top: y - height + 2, right: x + width + 2, bottom: y + 3 };
}

/**
 * Where the label of a line begins, so that it lies on no point, on no other label and within the plot.
 *
 * @returns null where there is no such place
 */
export function labelPlace(
  [from, to]: readonly [Pixel, Pixel],
  size: { readonly width: number; readonly height: number },
  area: Box,
  { points, taken }: { readonly points: readonly Pixel[]; readonly taken: readonly Box[] },
): Pixel | null {
  const around = points.map(({ x, y }): Box => ({
    left: x - POINT,
    top: y - POINT,
    right: x + POINT,
    bottom: y + POINT,
  }));
  for (const away of AWAY)
    for (const part of PARTS) {
      const place = { x: from.x + part * (to.x - from.x) + 6, y: from.y + part * (to.y - from.y) + away };
      const own = boxOf(place, size.width, size.height);
      const isInside =
        own.left >= area.left && own.right <= area.right && own.top >= area.top && own.bottom <= area.bottom;
      if (isInside && ![...around, ...taken].some((box) => meets(own, box))) return place;
    }
  return null;
}
