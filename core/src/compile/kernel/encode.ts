/** Bytes of a WebAssembly module: https://www.w3.org/TR/wasm-core-2/, chapter 5. */
export type Bytes = readonly number[];

/** An unsigned integer in LEB128. */
export function unsigned(value: number): Bytes {
  const bytes: number[] = [];
  let rest = value;
  do {
    const low = rest % 128;
    rest = Math.floor(rest / 128);
    bytes.push(rest > 0 ? low + 128 : low);
  } while (rest > 0);
  return bytes;
}

/** A signed integer in LEB128. */
export function signed(value: number): Bytes {
  const bytes: number[] = [];
  let rest = value;
  for (;;) {
    const low = rest & 0x7f;
    rest >>= 7;
    const isDone = (rest === 0 && (low & 0x40) === 0) || (rest === -1 && (low & 0x40) !== 0);
    bytes.push(isDone ? low : low | 0x80);
    if (isDone) return bytes;
  }
}

/** A double, least significant byte first. */
export function double(value: number): Bytes {
  const bytes = new Uint8Array(8);
  new DataView(bytes.buffer).setFloat64(0, value, true);
  return Array.from(bytes);
}

/** A list with its length in front. */
export function vector(items: readonly Bytes[]): Bytes {
  return [...unsigned(items.length), ...items.flat()];
}

export function text(value: string): Bytes {
  return vector(Array.from(value, (character) => [character.charCodeAt(0)]));
}

export function section(id: number, content: Bytes): Bytes {
  return [id, ...unsigned(content.length), ...content];
}

export const TYPE = { i32: 0x7f, f64: 0x7c, v128: 0x7b } as const;

/** The instructions that kernels are made of. */
export const OP = {
  block: [0x02, 0x40],
  loop: [0x03, 0x40],
  end: [0x0b],
  br: (depth: number): Bytes => [0x0c, ...unsigned(depth)],
  brIf: (depth: number): Bytes => [0x0d, ...unsigned(depth)],
  get: (local: number): Bytes => [0x20, ...unsigned(local)],
  set: (local: number): Bytes => [0x21, ...unsigned(local)],
  tee: (local: number): Bytes => [0x22, ...unsigned(local)],
  i32: (value: number): Bytes => [0x41, ...signed(value)],
  f64: (value: number): Bytes => [0x44, ...double(value)],
  i32Add: [0x6a],
  i32Shl: [0x74],
  i32GreaterSigned: [0x4a],
  i32GreaterEqualSigned: [0x4e],
  convert: [0xb7],
  select: [0x1b],
} as const satisfies Record<string, Bytes | ((value: number) => Bytes)>;

const simd = (code: number, ...rest: readonly number[]): Bytes => [0xfd, ...unsigned(code), ...rest];

/** One operation on one number, and the same on two at once. */
export interface Lanes {
  readonly one: Bytes;
  readonly two: Bytes;
}

export const SPLAT = simd(0x14);
export const REPLACE_SECOND = simd(0x22, 1);
export const BITSELECT = simd(0x52);

export const LANES = {
  add: { one: [0xa0], two: simd(0xf0) },
  subtract: { one: [0xa1], two: simd(0xf1) },
  multiply: { one: [0xa2], two: simd(0xf2) },
  divide: { one: [0xa3], two: simd(0xf3) },
  negate: { one: [0x9a], two: simd(0xed) },
  abs: { one: [0x99], two: simd(0xec) },
  sqrt: { one: [0x9f], two: simd(0xef) },
  floor: { one: [0x9c], two: simd(0x75) },
  min: { one: [0xa4], two: simd(0xf4) },
  max: { one: [0xa5], two: simd(0xf5) },
  '==': { one: [0x61], two: simd(0x47) },
  '!=': { one: [0x62], two: simd(0x48) },
  '<': { one: [0x63], two: simd(0x49) },
  '>': { one: [0x64], two: simd(0x4a) },
  '<=': { one: [0x65], two: simd(0x4b) },
  '>=': { one: [0x66], two: simd(0x4c) },
} as const satisfies Record<string, Lanes>;

/** Loads and stores with a constant offset; the alignment is a hint only. */
export function load(isTwo: boolean, offset: number): Bytes {
  return isTwo ? [...simd(0x00), 3, ...unsigned(offset)] : [0x2b, 3, ...unsigned(offset)];
}

export function store(isTwo: boolean, offset: number): Bytes {
  return isTwo ? [...simd(0x0b), 3, ...unsigned(offset)] : [0x39, 3, ...unsigned(offset)];
}
