/** All digits of n!, for whole n from 0 on. */
export function factorialDigits(n: number): string {
  let product = 1n;
  for (let i = 2n; i <= n; i += 1n) product *= i;
  return product.toString();
}

/** n! for whole n from 0 on; beyond 22 the nearest double. */
export function factorial(n: number): number {
  let product = 1;
  for (let i = 2; i <= n; i += 1) product *= i;
  return product;
}
