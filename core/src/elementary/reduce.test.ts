import { MEDIUM, reduce, reduced } from './reduce.ts';

const BITS = 1400n;

/** pi/2 * 2^BITS, by Machin's formula. */
const HALF_PI = ((): bigint => {
  const arctanInverse = (n: bigint): bigint => {
    let term = (1n << (BITS + 64n)) / n;
    let sum = 0n;
    for (let k = 1n, sign = 1n; term > 0n; k += 2n, sign = -sign) {
      sum += (sign * term) / k;
      term /= n * n;
    }
    return sum;
  };
  return (8n * arctanInverse(5n) - 2n * arctanInverse(239n)) >> 64n;
})();

/** Quadrant, head and tail of an angle in exact whole numbers. */
function exact(x: number): readonly [quadrant: number, head: number, tail: number] {
  let scale = 0;
  let whole = Math.abs(x);
  for (; !Number.isInteger(whole); scale += 1) whole *= 2;
  const scaled = BigInt(whole) << (BITS - BigInt(scale));
  const n = (2n * scaled + HALF_PI) / (2n * HALF_PI);
  const rest = scaled - n * HALF_PI;
  const toNumber = (value: bigint): number => Number(value >> 400n) / 2 ** 1000;
  const head = toNumber(rest);
  const tail = toNumber(rest - (BigInt(Math.round(head * 2 ** 1000)) << 400n));
  const sign = x < 0 ? -1 : 1;
  return [(sign * Number(n & 3n)) & 3, sign * head, sign * tail];
}

/** Angles of all sizes above those that three subtractions reduce. */
function* largeAngles(count: number): Generator<number> {
  let state = 20261129;
  const random = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  for (let i = 0; i < count; i += 1) {
    const digits = 1 + random() + random() / 2 ** 32;
    yield (i % 2 === 0 ? 1 : -1) * digits * 2 ** (20 + Math.floor(random() * (i % 4 < 2 ? 40 : 1000)));
  }
}

test('large angles are reduced to the last bit of head and tail', () => {
  for (const x of largeAngles(4000)) {
    reduce(x);
    const { quadrant, head, tail } = reduced;
    expect([x, quadrant, head, tail]).toEqual([x, ...exact(x)]);
  }
});

// the first comes closer to a multiple of pi/2 than any other double (J.-M. Muller, Elementary Functions, 2016, ch. 11)
test.each([
  6381956970095103 * 2 ** 797,
  5261692873635770 * 2 ** 499,
  2 ** 1023 * 1.9999999999999998,
  MEDIUM + 1,
])('%d is reduced to the last bit', (x) => {
  reduce(x);
  expect([reduced.quadrant, reduced.head, reduced.tail]).toEqual(exact(x));
});
