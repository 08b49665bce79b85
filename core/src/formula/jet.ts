import type { Comparison, Expression } from './expression.ts';
import { literal } from './javascript.ts';
import { PlaceError } from './place.ts';
import { constantOf } from './simplify.ts';

/**
 * Where the Taylor coefficients of a leaf come from: the code of coefficient k, or null where it is zero.
 * Coefficient k of x(t + s) is the factor of s^k.
 */
export type LeafJet = (leaf: Expression, k: number) => string | null;

/** Keeps a piece of code under a name and answers that name; the same piece gets the same name. */
export type Declare = (code: string) => string;

type Coefficient = string | null;

function sum(parts: readonly Coefficient[]): Coefficient {
  const there = parts.filter((part) => part !== null);
  return there.length === 0 ? null : there.join(' + ');
}

function times(left: Coefficient, right: Coefficient): Coefficient {
  return left === null || right === null ? null : `${left} * ${right}`;
}

function scaled(factor: number, code: Coefficient): Coefficient {
  if (code === null || factor === 0) return null;
  return factor === 1 ? code : `${literal(factor).text} * ${code}`;
}

/**
 * The Taylor coefficients of expressions along a solution, by the recurrences of automatic differentiation, as
 * straight-line code. Ask for coefficient k only when those below it have been asked for: cost then grows with
 * the square of k.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), chapter 13;
 * E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I, section I.8.
 */
export class JetCode {
  readonly #leaf: LeafJet;
  readonly #declare: Declare;
  readonly #known = new Map<Expression, Coefficient[]>();
  readonly #partners = new Map<string, Coefficient[]>();

  constructor(leaf: LeafJet, declare: Declare) {
    this.#leaf = leaf;
    this.#declare = declare;
  }

  /**
   * The code of coefficient k.
   *
   * @throws PlaceError for a call that has no Taylor series here
   */
  coefficient(node: Expression, k: number): Coefficient {
    const known = this.#known.get(node) ?? [];
    this.#known.set(node, known);
    for (let j = known.length; j <= k; j += 1) known.push(this.#kept(this.#make(node, j)));
    return known[k] ?? null;
  }

  #kept(code: Coefficient): Coefficient {
    return code === null || /^[\w.]+$/.test(code) || /^\(-[\d.e+-]+\)$/.test(code)
      ? code
      : this.#declare(code);
  }

  #make(node: Expression, k: number): Coefficient {
    switch (node.kind) {
      case 'number':
        return k === 0 ? literal(node.value).text : null;
      case 'name':
      case 'indexed':
        return this.#leaf(node, k);
      case 'negate': {
        const of = this.coefficient(node.of, k);
        return of === null ? null : `-${of}`;
      }
      case 'binary':
        return this.#binary(node, k);
      case 'call':
        return this.#call(node, k);
      case 'if':
        return this.#choice(
          this.#test(node.test),
          this.coefficient(node.yes, k),
          this.coefficient(node.no, k),
        );
    }
  }

  #choice(test: string, yes: Coefficient, no: Coefficient): Coefficient {
    return yes === null && no === null ? null : `(${test} ? ${yes ?? '0'} : ${no ?? '0'})`;
  }

  #test(test: Comparison): string {
    const relation = { '<': '<', '<=': '<=', '>': '>', '>=': '>=', '==': '===', '!=': '!==' }[test.relation];
    return `${this.#zeroth(test.left)} ${relation} ${this.#zeroth(test.right)}`;
  }

  #zeroth(node: Expression): string {
    return this.coefficient(node, 0) ?? '0';
  }

  #binary(node: Expression & { readonly kind: 'binary' }, k: number): Coefficient {
    const { operator, left, right } = node;
    switch (operator) {
      case '+':
      case '-': {
        const a = this.coefficient(left, k);
        const b = this.coefficient(right, k);
        if (a === null) return b === null ? null : operator === '+' ? b : `-${b}`;
        return b === null ? a : `${a} ${operator} ${b}`;
      }
      case '*':
        return this.#product(left, right, k);
      case '/':
        return this.#quotient(node, k);
      case '^':
        return this.#power(node, k);
    }
  }

  /** c[k] = sum of a[j] b[k-j]. */
  #product(left: Expression, right: Expression, k: number): Coefficient {
    return sum(
      Array.from({ length: k + 1 }, (_, j) =>
        times(this.coefficient(left, j), this.coefficient(right, k - j)),
      ),
    );
  }

  /** c[k] = (a[k] - sum of b[j] c[k-j]) / b[0]. */
  #quotient(node: Expression & { readonly kind: 'binary' }, k: number): Coefficient {
    const below = this.#zeroth(node.right);
    const rest = sum(
      Array.from({ length: k }, (_, i) =>
        times(this.coefficient(node.right, i + 1), this.#own(node, k - i - 1)),
      ),
    );
    const above = this.coefficient(node.left, k);
    if (rest === null) return above === null ? null : `${above} / ${below}`;
    return `(${above ?? '0'} - (${rest})) / ${below}`;
  }

  /** A coefficient of the node itself that was made before. */
  #own(node: Expression, k: number): Coefficient {
    return this.#known.get(node)?.[k] ?? null;
  }

  #power(node: Expression & { readonly kind: 'binary' }, k: number): Coefficient {
    const { left, right } = node;
    const exponent = constantOf(right);
    if (exponent !== null && Number.isInteger(exponent) && exponent >= 0 && exponent <= 64) {
      if (exponent === 0) return k === 0 ? '1' : null;
      return this.#wholePower(left, exponent, k);
    }
    const steady = Array.from({ length: k }, (_, j) => this.coefficient(right, j + 1)).every(
      (c) => c === null,
    );
    if (steady) return this.#realPower(node, this.#zeroth(right), k);
    return this.#generalPower(node, k);
  }

  /** Repeated squaring, so that a base of zero is no trouble. */
  #wholePower(base: Expression, exponent: number, k: number): Coefficient {
    if (exponent === 1) return this.coefficient(base, k);
    const half = this.#partner(base, `^${Math.floor(exponent / 2)}`, k, (j) =>
      this.#wholePower(base, Math.floor(exponent / 2), j),
    );
    const square = this.#partner(base, `sq${exponent}`, k, (j) => this.#convolve(half, half, j));
    if (exponent % 2 === 0) return square[k] ?? null;
    const factor = Array.from({ length: k + 1 }, (_, j) => this.coefficient(base, j));
    return this.#convolve(square, factor, k);
  }

  #convolve(a: readonly Coefficient[], b: readonly Coefficient[], k: number): Coefficient {
    return sum(Array.from({ length: k + 1 }, (_, j) => times(a[j] ?? null, b[k - j] ?? null)));
  }

  /** c = a^r: c[k] = sum of (r j - (k - j)) a[j] c[k-j] / (k a[0]). */
  #realPower(node: Expression & { readonly kind: 'binary' }, exponent: string, k: number): Coefficient {
    const base = this.#zeroth(node.left);
    if (k === 0) return `pow(${base}, ${exponent})`;
    const rest = sum(
      Array.from({ length: k }, (_, i) => {
        const j = i + 1;
        const product = times(this.coefficient(node.left, j), this.#own(node, k - j));
        return product === null ? null : `(${j} * ${exponent} - ${k - j}) * ${product}`;
      }),
    );
    return rest === null ? null : `(${rest}) / (${k} * ${base})`;
  }

  /** a^b = exp(b ln a). */
  #generalPower(node: Expression & { readonly kind: 'binary' }, k: number): Coefficient {
    const logarithm = this.#partner(node.left, 'ln', k, (j, own) => this.#ln(node.left, own, j));
    const inner = this.#partner(node, 'exponent', k, (j) => {
      const factor = Array.from({ length: j + 1 }, (_, i) => this.coefficient(node.right, i));
      return this.#convolve(factor, logarithm, j);
    });
    if (k === 0) return `pow(${this.#zeroth(node.left)}, ${this.#zeroth(node.right)})`;
    return this.#derived(inner, (j) => this.#own(node, j), k);
  }

  /** A further series that belongs to a node, made along with it. */
  #partner(
    node: Expression,
    key: string,
    k: number,
    make: (k: number, own: readonly Coefficient[]) => Coefficient,
  ): readonly Coefficient[] {
    const name = `${this.#identity(node)}/${key}`;
    const series = this.#partners.get(name) ?? [];
    this.#partners.set(name, series);
    for (let j = series.length; j <= k; j += 1) series.push(this.#kept(make(j, series)));
    return series;
  }

  readonly #identities = new Map<Expression, number>();

  #identity(node: Expression): number {
    const known = this.#identities.get(node) ?? this.#identities.size;
    this.#identities.set(node, known);
    return known;
  }

  /** Where c' = g a': c[k] = sum of j a[j] g[k-j] / k, j = 1..k. */
  #derived(a: readonly Coefficient[], g: (k: number) => Coefficient, k: number, sign = ''): Coefficient {
    const rest = sum(
      Array.from({ length: k }, (_, i) => scaled(i + 1, times(a[i + 1] ?? null, g(k - i - 1)))),
    );
    return rest === null ? null : `${sign}(${rest}) / ${k}`;
  }

  /** Where v c' = a': c[k] = (a[k] - sum of j c[j] v[k-j] / k) / v[0], j = 1..k-1. */
  #divided(a: Coefficient, own: readonly Coefficient[], v: readonly Coefficient[], k: number): Coefficient {
    const rest = sum(
      Array.from({ length: k - 1 }, (_, i) => scaled(i + 1, times(own[i + 1] ?? null, v[k - i - 1] ?? null))),
    );
    if (rest === null) return a === null ? null : `${a} / ${v[0] ?? '0'}`;
    return `(${a ?? '0'} - (${rest}) / ${k}) / ${v[0] ?? '0'}`;
  }

  #ln(node: Expression, own: readonly Coefficient[], k: number): Coefficient {
    if (k === 0) return `ln(${this.#zeroth(node)})`;
    return this.#divided(this.coefficient(node, k), own, this.#series(node, k), k);
  }

  #series(node: Expression, k: number): readonly Coefficient[] {
    return Array.from({ length: k + 1 }, (_, j) => this.coefficient(node, j));
  }

  #ownSeries(node: Expression): readonly Coefficient[] {
    return this.#known.get(node) ?? [];
  }

  #call(node: Expression & { readonly kind: 'call' }, k: number): Coefficient {
    const [x, y] = node.inputs;
    if (x === undefined || node.primes > 0)
      throw new PlaceError(node.at, `${node.name} has no Taylor series here`);
    const zero = (code: string): string => `${code}(${this.#zeroth(x)})`;
    const own = this.#ownSeries(node);
    switch (node.name) {
      case 'exp':
        return k === 0 ? zero('exp') : this.#derived(this.#series(x, k), (j) => own[j] ?? null, k);
      case 'ln':
        return this.#ln(x, own, k);
      case 'log10':
      case 'log2': {
        if (k === 0) return zero(node.name);
        const natural = this.#partner(x, 'ln', k, (j, before) => this.#ln(x, before, j))[k] ?? null;
        return natural === null ? null : `${natural} / Math.${node.name === 'log2' ? 'LN2' : 'LN10'}`;
      }
      case 'sqrt':
        return this.#sqrt(x, own, k);
      case 'cbrt':
        return this.#cbrt(x, own, k);
      case 'sin':
      case 'cos':
        return this.#circular(x, node.name, k);
      case 'sinh':
      case 'cosh':
        return this.#hyperbolic(x, node.name, k);
      case 'tan':
      case 'tanh':
        return this.#tangent(x, node.name, own, k);
      case 'atan': {
        if (k === 0) return zero('atan');
        const v = this.#partner(x, '1+sq', k, (j) => sum([j === 0 ? '1' : null, this.#product(x, x, j)]));
        return this.#divided(this.coefficient(x, k), own, v, k);
      }
      case 'asin':
      case 'acos':
        return this.#inverse(x, node.name, own, k);
      case 'abs': {
        const of = this.coefficient(x, k);
        if (k === 0) return zero('Math.abs');
        return of === null ? null : `(${this.#zeroth(x)} < 0 ? -${of} : ${of})`;
      }
      case 'sign':
      case 'floor':
        return k === 0 ? zero(`Math.${node.name}`) : null;
      case 'min':
      case 'max':
        return this.#extreme(node, k);
    }
    if (y === undefined) throw new PlaceError(node.at, `${node.name} has no Taylor series here`);
    if (node.name === 'atan2') return this.#atan2(node, x, y, own, k);
    if (node.name === 'mod') {
      if (k === 0) return `mod(${this.#zeroth(x)}, ${this.#zeroth(y)})`;
      const [a, b] = [this.coefficient(x, k), this.coefficient(y, k)];
      const whole = `Math.floor(${this.#zeroth(x)} / ${this.#zeroth(y)})`;
      return b === null ? a : `${a ?? '0'} - ${whole} * ${b}`;
    }
    throw new PlaceError(node.at, `${node.name} has no Taylor series here`);
  }

  /** c = sqrt(a): c[k] = (a[k] - sum of c[j] c[k-j], j = 1..k-1) / (2 c[0]). */
  #sqrt(x: Expression, own: readonly Coefficient[], k: number): Coefficient {
    if (k === 0) return `Math.sqrt(${this.#zeroth(x)})`;
    const rest = sum(
      Array.from({ length: k - 1 }, (_, i) => times(own[i + 1] ?? null, own[k - i - 1] ?? null)),
    );
    const of = this.coefficient(x, k);
    if (rest === null) return of === null ? null : `${of} / (2 * ${own[0] ?? '0'})`;
    return `(${of ?? '0'} - (${rest})) / (2 * ${own[0] ?? '0'})`;
  }

  /** c = a^(1/3), as a real power. */
  #cbrt(x: Expression, own: readonly Coefficient[], k: number): Coefficient {
    if (k === 0) return `cbrt(${this.#zeroth(x)})`;
    const rest = sum(
      Array.from({ length: k }, (_, i) => {
        const j = i + 1;
        const product = times(this.coefficient(x, j), own[k - j] ?? null);
        return product === null ? null : `(${4 * j - 3 * k}) * ${product}`;
      }),
    );
    return rest === null ? null : `(${rest}) / (${3 * k} * ${this.#zeroth(x)})`;
  }

  #circular(x: Expression, which: 'sin' | 'cos', k: number): Coefficient {
    const inner = this.#series(x, k);
    const sine = this.#pairOf(x, 'sin');
    const cosine = this.#pairOf(x, 'cos');
    for (let j = sine.length; j <= k; j += 1) {
      const s = j === 0 ? `sin(${this.#zeroth(x)})` : this.#derived(inner, (i) => cosine[i] ?? null, j);
      const c = j === 0 ? `cos(${this.#zeroth(x)})` : this.#derived(inner, (i) => sine[i] ?? null, j, '-');
      sine.push(this.#kept(s));
      cosine.push(this.#kept(c));
    }
    return (which === 'sin' ? sine : cosine)[k] ?? null;
  }

  #hyperbolic(x: Expression, which: 'sinh' | 'cosh', k: number): Coefficient {
    const inner = this.#series(x, k);
    const sine = this.#pairOf(x, 'sinh');
    const cosine = this.#pairOf(x, 'cosh');
    for (let j = sine.length; j <= k; j += 1) {
      const s = j === 0 ? `sinh(${this.#zeroth(x)})` : this.#derived(inner, (i) => cosine[i] ?? null, j);
      const c = j === 0 ? `cosh(${this.#zeroth(x)})` : this.#derived(inner, (i) => sine[i] ?? null, j);
      sine.push(this.#kept(s));
      cosine.push(this.#kept(c));
    }
    return (which === 'sinh' ? sine : cosine)[k] ?? null;
  }

  #pairOf(x: Expression, key: string): Coefficient[] {
    const name = `${this.#identity(x)}/${key}`;
    const series = this.#partners.get(name) ?? [];
    this.#partners.set(name, series);
    return series;
  }

  /** c' = (1 + c^2) a' for the tangent, (1 - c^2) a' for the hyperbolic one. */
  #tangent(x: Expression, which: 'tan' | 'tanh', own: readonly Coefficient[], k: number): Coefficient {
    if (k === 0) return `${which}(${this.#zeroth(x)})`;
    const factor = this.#pairOf(x, `${which}'`);
    for (let j = factor.length; j < k; j += 1) {
      const square = this.#convolve(own, own, j);
      const signedSquare = square === null ? null : which === 'tan' ? square : `-(${square})`;
      factor.push(this.#kept(sum([j === 0 ? '1' : null, signedSquare])));
    }
    return this.#derived(this.#series(x, k), (j) => factor[j] ?? null, k);
  }

  /** v c' = +-a' with v = sqrt(1 - a^2). */
  #inverse(x: Expression, which: 'asin' | 'acos', own: readonly Coefficient[], k: number): Coefficient {
    if (k === 0) return `${which}(${this.#zeroth(x)})`;
    const inside = this.#partner(x, '1-sq', k, (j) => {
      const square = this.#product(x, x, j);
      return sum([j === 0 ? '1' : null, square === null ? null : `-(${square})`]);
    });
    const root = this.#pairOf(x, 'sqrt(1-sq)');
    for (let j = root.length; j <= k; j += 1) {
      if (j === 0) {
        root.push(this.#kept(`Math.sqrt(${inside[0] ?? '0'})`));
        continue;
      }
      const rest = sum(
        Array.from({ length: j - 1 }, (_, i) => times(root[i + 1] ?? null, root[j - i - 1] ?? null)),
      );
      root.push(this.#kept(`(${inside[j] ?? '0'} - (${rest ?? '0'})) / (2 * ${root[0] ?? '0'})`));
    }
    const of = this.coefficient(x, k);
    const signedOf = of === null ? null : which === 'asin' ? of : `-${of}`;
    return this.#divided(signedOf, own, root, k);
  }

  /** (x^2 + y^2) c' = x y' - y x'. */
  #atan2(
    node: Expression,
    y: Expression,
    x: Expression,
    own: readonly Coefficient[],
    k: number,
  ): Coefficient {
    if (k === 0) return `atan2(${this.#zeroth(y)}, ${this.#zeroth(x)})`;
    const radius = this.#partner(node, 'radius', k, (j) =>
      sum([this.#product(x, x, j), this.#product(y, y, j)]),
    );
    const above = this.#derived(this.#series(y, k), (j) => this.coefficient(x, j), k);
    const below = this.#derived(this.#series(x, k), (j) => this.coefficient(y, j), k, '-');
    return this.#divided(this.#kept(sum([above, below])), own, radius, k);
  }

  #extreme(node: Expression & { readonly kind: 'call' }, k: number): Coefficient {
    const relation = node.name === 'min' ? '<=' : '>=';
    const [first, ...rest] = node.inputs;
    if (first === undefined) return null;
    let chosen = this.coefficient(first, k);
    let value = this.#zeroth(first);
    for (const other of rest) {
      chosen = this.#choice(
        `${value} ${relation} ${this.#zeroth(other)}`,
        chosen,
        this.coefficient(other, k),
      );
      value = this.#kept(`Math.${node.name}(${value}, ${this.#zeroth(other)})`) ?? '0';
    }
    return chosen;
  }
}
