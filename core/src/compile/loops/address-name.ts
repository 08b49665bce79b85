/** The name of the address of an array. */
export function addressName(array: string): string {
  return `${array}b`;
}
