/** Numbers that look random and are the same every time: a 32-bit generator of one multiplication. */
export type Random = () => number;

/** Source: G. Steele, S. Vigna, Computationally easy, spectrally good multipliers, Software 52 (2022) 443-458. */
export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 0x915f77f5) + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}
