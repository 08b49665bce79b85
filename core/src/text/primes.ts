/**
 * A name with its primes, as it is written: `x''`.
 *
 * @example primed('x', 2) // "x''"
 */
export function primed(name: string, primes: number): string {
  return name + "'".repeat(primes);
}
