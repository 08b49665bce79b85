/** The number below which a part of some numbers lies. */
export function quantile(values, part) {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length * part)];
}

/** The middle one of some numbers. */
export function median(values) {
  return quantile(values, 0.5);
}
