/** Words that one of the languages keeps for itself, or that the programs use. */
const TAKEN = new Set(
  `auto break case char const continue default do double else enum extern float for goto if inline int long register restrict
  return short signed sizeof static struct switch typedef union unsigned void volatile while main printf exit size_t
  and as assert async await class def del elif except false finally from global import in is lambda none nonlocal not or pass
  raise true try with yield print range len int float
  arguments debugger delete export extends function instanceof let new null super this throw typeof undefined var
  program end subroutine contains implicit real integer parameter call use module allocate merge modulo
  sin cos tan asin acos atan atan2 sinh cosh tanh exp ln log log10 log2 sqrt cbrt abs sign floor min max mod pow
  t h n f a y x v d e j i size width start stop steps initial exact step first run rows table math sys args error order argv argc
  last ratio file state text line quotient length status begin keep advance digits dp last_h last_error error_at first_step values r w
  sign_of whole_below remainder log_2 cube_root merge result pure column matrix right before reach moved scale round fail solve f_moved ok print write read call do then kind fabs fmin fmax`.split(
    /\s+/,
  ),
);

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

  constructor(taken: readonly string[] = []) {
    for (const name of taken) this.#used.add(name.toLowerCase());
  }

  /** A name like the wanted one. */
  make(request: string): string {
    const base = plainName(request);
    let name = base;
    for (let i = 1; this.#used.has(name.toLowerCase()) || TAKEN.has(name.toLowerCase()); i += 1)
      name = `${base}_${i === 1 ? '' : i}`;
    this.#used.add(name.toLowerCase());
    return name;
  }
}

const GREEK: Readonly<Record<string, string>> = Object.fromEntries(
  'alpha beta gamma delta epsilon zeta eta theta iota kappa lambda mu nu xi omicron pi rho sigma2 sigma tau upsilon phi chi psi omega'
    .split(' ')
    .map((name, i) => [String.fromCodePoint(0x3b1 + i), name]),
);
