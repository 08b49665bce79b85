import { USED } from './reserved-words.ts';

/** A name of letters, digits and underscores like the wanted one. */
export function plainName(request: string): string {
  const plain = Array.from(request.normalize('NFKD'), (sign) =>
    /[A-Za-z0-9_]/.test(sign) ? sign : (GREEK[sign] ?? ''),
  ).join('');
  return /^[A-Za-z]/.test(plain) ? plain.slice(0, 40) : `q${plain.slice(0, 40)}`;
}

/** Names for a program: letters, digits and underscores, none used twice whatever the case of letters. */
export class Names {
  readonly #used = new Set<string>();
  readonly #reserved: ReadonlySet<string>;

  /**
   * @param reserved words of the language and of its library, in small letters
   * @param taken names that are used already
   */
  constructor(reserved: ReadonlySet<string>, taken: readonly string[] = []) {
    this.#reserved = reserved;
    for (const name of taken) this.#used.add(name.toLowerCase());
  }

  #isTaken(name: string): boolean {
    const small = name.toLowerCase();
    return this.#used.has(small) || this.#reserved.has(small) || USED.has(small);
  }

  /** A name like the wanted one. */
  make(request: string): string {
    const base = plainName(request);
    let name = base;
    for (let i = 1; this.#isTaken(name); i += 1) name = `${base}_${i === 1 ? '' : i}`;
    this.#used.add(name.toLowerCase());
    return name;
  }
}

const GREEK: Readonly<Record<string, string>> = Object.fromEntries(
  'alpha beta gamma delta epsilon zeta eta theta iota kappa lambda mu nu xi omicron pi rho sigma2 sigma tau upsilon phi chi psi omega'
    .split(' ')
    .map((name, i) => [String.fromCodePoint(0x3b1 + i), name]),
);
