/** A counter and a whole number: `j`, `j + 1`, `j - 2`. */
export function shifted(counter: string, ahead: number): string {
  return ahead === 0 ? counter : ahead > 0 ? `${counter} + ${ahead}` : `${counter} - ${-ahead}`;
}

/** The shortest decimals that are read back as the same double, with a point or an exponent. */
export function decimal(value: number): string {
  const text = String(value);
  return /[.e]/.test(text) ? text : `${text}.0`;
}

/** Elements of vectors as C and the languages like it write them. */
export const LIKE_C = {
  at: (vector: string, index: string): string => `${vector}[${index}]`,
  element: (vector: string, i: number): string => `${vector}[${i}]`,
  running: (vector: string, counter: string, ahead: number): string =>
    `${vector}[${shifted(counter, ahead)}]`,
};
