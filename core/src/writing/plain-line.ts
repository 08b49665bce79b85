import { accented, BELOW_LINE, CHARACTERS } from './print-signs.ts';
import { FUNCTIONS, GREEK, LOOKS, NAMED, SIGNS, SILENT, WITH_GROUP } from './tex-commands.ts';

/** A line in the notation's own characters, and where each of them is in the line as it was typed. */
export interface PlainLine {
  readonly text: string;
  /** Offset in the typed line of each character, and of the end. */
  readonly at: readonly number[];
}

/** Characters and commands for which a line is looked at at all. */
const SPECIAL = /[\\{}$²³½¼¾₀-₉₊₋ₙₖᵢⱼₘ\u00c0-\u024f\u1e00-\u1eff]|\p{M}|_\(/u;

/** `d`, a power of it, and what is differentiated: the upper half of a derivative. */
const ABOVE = /^d(?:\^\{?(\d)\}?|([²³]))?\s*([A-Za-z]\w*)$/;
const BELOW = /^d\s*[A-Za-z]\w*(?:\^\{?\d\}?|[²³])?$/;

const POWERS: ReadonlyMap<string, number> = new Map([
  ['²', 2],
  ['³', 3],
]);

/** The unknown with its primes where a fraction is a derivative; null where it is none. */
function derivative(above: string, below: string): string | null {
  const found = ABOVE.exec(above.trim());
  if (found === null || !BELOW.test(below.trim())) return null;
  const [, digit, sign, name] = found;
  const order = digit === undefined ? (POWERS.get(sign ?? '') ?? 1) : Number(digit);
  return `${name ?? ''}${"'".repeat(order)}`;
}

/** For every opening curly bracket of a line the place of the one that closes it. */
function curlyPairs(line: string): ReadonlyMap<number, number> {
  const pairs = new Map<number, number>();
  const open: number[] = [];
  for (let i = 0; i < line.length; i += 1) {
    if (line[i] === '{') open.push(i);
    if (line[i] !== '}') continue;
    const from = open.pop();
    if (from !== undefined) pairs.set(from, i);
  }
  return pairs;
}

/** Groups inside one another that are taken apart; a formula nests at most as deep. */
const DEEPEST = 200;

/** Writes the plain line and remembers where it comes from. */
class PlainWriter {
  text = '';
  readonly at: number[] = [];
  readonly #line: string;
  readonly #pairs: ReadonlyMap<number, number>;
  #depth = 0;

  constructor(line: string) {
    this.#line = line;
    this.#pairs = curlyPairs(line);
  }

  put(text: string, from: number): void {
    this.text += text;
    for (let i = 0; i < text.length; i += 1) this.at.push(from);
  }

  /** A name of its own: it must not run into a word before it. */
  name(text: string, from: number): void {
    this.put(/\w/.test(this.text.at(-1) ?? '') ? ` ${text}` : text, from);
  }

  /**
   * The stretch of a group in curly brackets that begins at a place: its inside and what follows; null where none does.
   */
  group(from: number): { readonly from: number; readonly to: number; readonly next: number } | null {
    let open = from;
    while (this.#line[open] === ' ') open += 1;
    const to = this.#pairs.get(open);
    return to === undefined ? null : { from: open + 1, to, next: to + 1 };
  }

  /** A group, or the one sign that TeX takes where none begins: `\\frac12`. */
  argument(from: number): { readonly from: number; readonly to: number; readonly next: number } | null {
    const group = this.group(from);
    if (group !== null) return group;
    let at = from;
    while (this.#line[at] === ' ') at += 1;
    return /[A-Za-z\d]/.test(this.#line[at] ?? '') ? { from: at, to: at + 1, next: at + 1 } : null;
  }

  inside({ from, to }: { readonly from: number; readonly to: number }): string {
    return this.#line.slice(from, to);
  }

  /** Writes a stretch of the line. */
  stretch(from: number, to: number): void {
    this.#depth += 1;
    const isDeep = this.#depth > DEEPEST;
    for (let i = from; i < to;)
      if (isDeep) this.put(this.#line[i]!, i++);
      else i = this.#one(i, to);
    this.#depth -= 1;
  }

  #bracketed(group: { readonly from: number; readonly to: number; readonly next?: number }): void {
    this.put('(', group.from - 1);
    this.stretch(group.from, group.to);
    this.put(')', Math.min(group.to, (group.next ?? group.to + 1) - 1));
  }

  /** A group; one with `\\over` in it is a quotient. */
  #grouped(group: { readonly from: number; readonly to: number }): void {
    const over = this.inside(group).indexOf('\\over');
    const isQuotient = over >= 0 && !/[A-Za-z]/.test(this.#line[group.from + over + 5] ?? '');
    if (!isQuotient) {
      this.#bracketed(group);
      return;
    }
    const sign = group.from + over;
    this.put('(', group.from - 1);
    this.#bracketed({ from: group.from, to: sign });
    this.put('/', sign);
    this.#bracketed({ from: sign + 5, to: group.to });
    this.put(')', group.to);
  }

  /** `₁` belongs to the name before it, `ₙ₊₁` is an index. */
  #below(i: number, to: number): number {
    let end = i;
    let inside = '';
    while (end < to && BELOW_LINE.has(this.#line[end]!)) {
      inside += BELOW_LINE.get(this.#line[end]!) ?? '';
      end += 1;
    }
    this.put(/^\d+$/.test(inside) ? inside : `[${inside}]`, i);
    return end;
  }

  /** `&` at a sign of relation, where lines of TeX are aligned. */
  #isAlignment(i: number): boolean {
    const around = this.#line.slice(Math.max(0, i - 2), i + 3);
    return /&\s*[=<>\\]|=\s*&/.test(around);
  }

  /** `_(n+1)` is an index. */
  #roundIndex(i: number): number {
    const found = /^_\(\s*([i-n]\s*(?:[+-]\s*\d+)?)\s*\)/.exec(this.#line.slice(i, i + 20));
    if (found === null) {
      this.put('_', i);
      return i + 1;
    }
    this.put(`[${found[1] ?? ''}]`, i);
    return i + found[0].length;
  }

  /** Writes what begins at a place; the place behind it. */
  #one(i: number, to: number): number {
    const character = this.#line[i]!;
    const other = CHARACTERS.get(character) ?? accented(character);
    if (other !== undefined) this.put(other, i);
    else if (BELOW_LINE.has(character)) return this.#below(i, to);
    else if (character === '&' && this.#isAlignment(i)) this.put(' ', i);
    else if (character === '_' && this.#line[i + 1] === '(') return this.#roundIndex(i);
    else if (character === '\\') return this.#command(i, to);
    else if (character === '_' && this.#line[i + 1] === '{') return this.#index(i);
    else if (character === '{') {
      const group = this.group(i);
      if (group !== null) {
        this.#grouped(group);
        return group.next;
      }
      this.put(character, i);
    } else this.put(character, i);
    return i + 1;
  }

  /** `_{n+1}` and `_{i}` are an index; `_{1}`, `_{t}` and `_{max}` belong to the name. */
  #index(i: number): number {
    const group = this.group(i + 1);
    if (group === null) {
      this.put('_', i);
      return i + 1;
    }
    const inside = this.inside(group);
    const isName = /^(\d+|[A-Za-z]\w+|[a-ho-zA-Z])$/.test(inside);
    this.put(isName ? '_' : '[', i);
    this.stretch(group.from, group.to);
    if (!isName) this.put(']', group.to);
    return group.next;
  }

  #command(i: number, to: number): number {
    const [, name = ''] = /^\\([A-Za-z]+|[^A-Za-z]?)/.exec(this.#line.slice(i, to)) ?? [];
    const next = i + 1 + name.length;
    const sign = SIGNS.get(name);
    if (sign !== undefined) {
      this.put(sign, i);
      return next;
    }
    if (/^[cdt]?frac$/.test(name)) return this.#fraction(i, next);
    if (SILENT.has(name)) return next;
    const group = this.group(next);
    if (WITH_GROUP.has(name) && group !== null) return group.next;
    const accent = NAMED.get(name);
    if (accent !== undefined && group !== null) {
      this.name(`${this.inside(group).replace(/^\\/, '')}${accent}`, i);
      return group.next;
    }
    if ((name === 'sqrt' || FUNCTIONS.has(name)) && group !== null) {
      this.name(FUNCTIONS.get(name) ?? 'sqrt', i);
      this.#bracketed(group);
      return group.next;
    }
    if ((name === 'dot' || name === 'ddot') && group !== null) {
      this.name(this.inside(group), i);
      this.put(name === 'dot' ? "'" : "''", group.to);
      return group.next;
    }
    if (LOOKS.test(name) && group !== null) {
      this.name('', i);
      this.stretch(group.from, group.to);
      return group.next;
    }
    if (GREEK.has(name)) this.name(name, i);
    else if (FUNCTIONS.has(name)) return this.#function(name, i, next);
    // an unknown character is reported once, by its first occurrence
    else this.put('\\', i);
    return next;
  }

  /** A function in front of a bracket, or of one word: `\sin\theta`, `\sin t`. */
  #function(name: string, i: number, next: number): number {
    this.name(FUNCTIONS.get(name) ?? name, i);
    const word = /^\s*(?:\\([A-Za-z]+)|([A-Za-z]\w*))/.exec(this.#line.slice(next));
    const [all = '', greek, letters] = word ?? [];
    if (letters === undefined && (greek === undefined || !GREEK.has(greek))) return next;
    this.put(`(${greek ?? letters ?? ''})`, next);
    return next + all.length;
  }

  #fraction(i: number, next: number): number {
    const above = this.argument(next);
    const below = above === null ? null : this.argument(above.next);
    if (above === null || below === null) {
      this.put(this.#line.slice(i, next), i);
      return next;
    }
    const primed = derivative(this.inside(above), this.inside(below));
    if (primed !== null) this.name(primed, i);
    else {
      this.put('(', i);
      this.#bracketed(above);
      this.put('/', above.to);
      this.#bracketed(below);
      this.put(')', below.next - 1);
    }
    return below.next;
  }
}

/**
 * A line with signs of print and formulas pasted from TeX in the notation's own characters.
 *
 * @returns null for a line that holds none of them
 * @example plainLine('y_{n+1} = y_n + \\frac{h}{2} k').text // 'y[n+1] = y_n + ((h)/(2)) k'
 */
export function plainLine(line: string): PlainLine | null {
  const comment = line.indexOf('#');
  const end = comment < 0 ? line.length : comment;
  if (!SPECIAL.test(line.slice(0, end))) return null;
  const writer = new PlainWriter(line);
  writer.stretch(0, end);
  return { text: writer.text, at: [...writer.at, end] };
}
