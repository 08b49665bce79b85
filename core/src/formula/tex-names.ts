import { primed } from '../text/primes.ts';
const GREEK: ReadonlySet<string> = new Set(
  (
    'alpha beta gamma delta epsilon zeta eta theta iota kappa lambda mu nu xi pi rho sigma tau upsilon phi chi ' +
    'psi omega Gamma Delta Theta Lambda Xi Pi Sigma Upsilon Phi Psi Omega'
  ).split(' '),
);

const GREEK_LETTERS: ReadonlyMap<string, string> = new Map(
  'α alpha β beta γ gamma δ delta ε varepsilon ζ zeta η eta θ theta ι iota κ kappa λ lambda μ mu ν nu ξ xi π pi ρ rho σ sigma τ tau υ upsilon φ varphi χ chi ψ psi ω omega Γ Gamma Δ Delta Θ Theta Λ Lambda Ξ Xi Π Pi Σ Sigma Φ Phi Ψ Psi Ω Omega'
    .split(' ')
    .reduce<[string, string][]>((pairs, word, i, all) => {
      if (i % 2 === 0) pairs.push([word, `\\${all[i + 1] ?? ''}`]);
      return pairs;
    }, []),
);

/** A word as running letters: `level` in one piece, a Greek name as its letter. */
function word(text: string): string {
  if (GREEK.has(text)) return `\\${text}`;
  if (text.length === 1) return GREEK_LETTERS.get(text) ?? text;
  const letters = Array.from(text, (c) => c)
    .map((letter) => GREEK_LETTERS.get(letter) ?? letter)
    .join('');
  return letters.includes('\\') ? letters.replace(/\\([a-zA-Z]+)/g, '\\$1{}') : `\\mathit{${letters}}`;
}

/**
 * A name as a mathematician sets it: `k1` as k with index 1, `omega` as the letter, `T_air` with a
 * roman index, `level` in one piece.
 *
 * @returns the base and its index apart, so that an index of the text (`u[i]`) can join the latter
 */
function texName(name: string): { readonly base: string; readonly index: string | null } {
  const parts = name.split('_').filter((part) => part !== '');
  if (parts.length === 0) return { base: '\\_', index: null };
  const [first, ...rest] = parts;
  const digits = /^(.*?\D)(\d+)$/.exec(first!);
  const base = word(digits?.[1] ?? first!);
  const indices = [
    ...(digits?.[2] === undefined ? [] : [digits[2]]),
    ...rest.map((part) =>
      // f_ty: differentiated by t and by y
      first === 'f' && /^[ty]+$/.test(part)
        ? part
        : /^\d+$/.test(part) || part.length === 1 || GREEK.has(part)
          ? word(part)
          : `\\mathrm{${part}}`,
    ),
  ];
  return { base, index: indices.length === 0 ? null : indices.join(',') };
}

/**
 * A name with an optional further index and primes.
 *
 * @example texSymbol('k1') // 'k_{1}'
 */
export function texSymbol(name: string, primes = 0, furtherIndex: string | null = null): string {
  const { base, index } = texName(name);
  const below = [index, furtherIndex].filter((part) => part !== null).join(',');
  const above = primes === 0 ? '' : primes <= 3 ? primed('', primes) : `^{(${primes})}`;
  return `${base}${above}${below === '' ? '' : `_{${below}}`}`;
}

/** A number as it is set: 0.35, 10^{-3}, 6.02\cdot 10^{23}. */
export function texNumber(value: number): string {
  const text = String(value);
  const match = /^(.*)e([+-]?\d+)$/.exec(text);
  if (match === null) return text;
  const power = `10^{${Number(match[2])}}`;
  return match[1] === '1' ? power : `${match[1]} \\cdot ${power}`;
}
