/** n! for whole n from 0 on. */
export function factorial(n: number): number {
  let product = 1;
  for (let i = 2; i <= n; i += 1) product *= i;
  return product;
}
