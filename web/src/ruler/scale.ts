/** A logarithmic scale of step sizes: fine at the left, coarse at the right, as in the plot of the order. */
export interface RulerScale {
  readonly coarsest: number;
  readonly finest: number;
  readonly left: number;
  readonly right: number;
}

/** A scale that holds all rungs with some room at both sides. */
export function rulerScale(sizes: readonly number[], left: number, right: number): RulerScale {
  const coarsest = Math.max(...sizes);
  const finest = Math.min(...sizes);
  const room = Math.max(1.5, (coarsest / finest) ** 0.06);
  return { coarsest: coarsest * room, finest: finest / room, left, right };
}

export function placeOfSize(scale: RulerScale, h: number): number {
  const part = Math.log(h / scale.finest) / Math.log(scale.coarsest / scale.finest);
  return scale.left + part * (scale.right - scale.left);
}

/** The step size at a place of the ruler. */
export function sizeAtPlace(scale: RulerScale, x: number): number {
  const part = (x - scale.left) / (scale.right - scale.left);
  return scale.finest * (scale.coarsest / scale.finest) ** Math.min(1, Math.max(0, part));
}

/** Round numbers 1, 2, 5 times a power of ten within the scale, thinned where there are many decades. */
export function roundSizes(scale: RulerScale): readonly number[] {
  const decades = Math.log10(scale.coarsest / scale.finest);
  const every = Math.max(1, Math.ceil(decades / 14));
  const digits = decades > 6 ? [1] : decades > 3 ? [1, 3] : [1, 2, 5];
  const sizes: number[] = [];
  for (let power = Math.floor(Math.log10(scale.finest)); power <= Math.log10(scale.coarsest); power += 1)
    for (const digit of power % every === 0 ? digits : []) {
      const h = Number(`${digit}e${power}`);
      if (h >= scale.finest && h <= scale.coarsest) sizes.push(h);
    }
  return sizes;
}

/** Step sizes L/N that divide an interval of length L, coarse ones first, as far as their ticks are apart. */
export function dividingSizes(scale: RulerScale, length: number): readonly number[] {
  const sizes: number[] = [];
  let last = Infinity;
  for (let n = Math.max(1, Math.ceil(length / scale.coarsest)); n < 2000; n += 1) {
    const h = length / n;
    const x = placeOfSize(scale, h);
    if (x < scale.left || last - x < 3) break;
    sizes.push(h);
    last = x;
  }
  return sizes;
}

/**
 * Of places that want a label those that can have one without overprinting another; earlier ones have the right of way.
 */
export function labelled(places: readonly number[], widths: readonly number[]): readonly boolean[] {
  const taken: { readonly from: number; readonly to: number }[] = [];
  return places.map((x, i) => {
    const half = (widths[i] ?? 0) / 2 + 3;
    const own = { from: x - half, to: x + half };
    if (taken.some(({ from, to }) => own.from < to && own.to > from)) return false;
    taken.push(own);
    return true;
  });
}
