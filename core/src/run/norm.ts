/** The Euclidean norm, with sums in the order of the values: Math.hypot rounds differently from engine to engine. */
export function norm(values: ArrayLike<number>): number {
  let sum = 0;
  for (let j = 0; j < values.length; j += 1) sum += values[j]! * values[j]!;
  return Math.sqrt(sum);
}
