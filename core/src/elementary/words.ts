/**
 * The two halves of a double as integers. Elementary functions are made here, and not taken from the machine,
 * because browsers and Node round them differently; the arithmetic below is the same everywhere.
 */
const number = new Float64Array(1);
const halves = new Uint32Array(number.buffer);
/** Which half is first differs between machines. */
const HIGH = new Uint8Array(Uint32Array.of(1).buffer)[0] === 1 ? 1 : 0;

/** Sign, exponent and the first 20 bits of the fraction, as a signed integer. */
export function highWord(x: number): number {
  number[0] = x;
  return halves[HIGH]! | 0;
}

/** The last 32 bits of the fraction. */
export function lowWord(x: number): number {
  number[0] = x;
  return halves[1 - HIGH]!;
}

export function fromWords(high: number, low: number): number {
  halves[HIGH] = high;
  halves[1 - HIGH] = low;
  return number[0]!;
}

/** x with another first half. */
export function withHigh(x: number, high: number): number {
  number[0] = x;
  halves[HIGH] = high;
  return number[0];
}

/** x with the last 32 bits of its fraction cleared. */
export function headOf(x: number): number {
  number[0] = x;
  halves[1 - HIGH] = 0;
  return number[0];
}

/** 2^k for -1022 <= k <= 1023. */
export function powerOfTwo(k: number): number {
  return fromWords((0x3ff + k) << 20, 0);
}
