/** A name with its primes, as it is written: `x''`. */
export function primed(name: string, primes: number): string {
  return name + "'".repeat(primes);
}
