import type { Code } from '../formula/javascript.ts';

/** Lines of a block, and what its last names stand for. */
export interface ScopedLines {
  readonly lines: readonly string[];
  readonly result: readonly string[];
}

/**
 * Keeps pieces of code under names: steady ones before the loop over steps, others in the block that is being
 * written. The same piece is kept once as long as its name is in scope.
 */
export class Scopes {
  readonly before: string[] = [];
  readonly #steady = new Map<string, string>();
  readonly #blocks: { readonly lines: string[]; readonly names: Map<string, string> }[] = [
    { lines: [], names: new Map() },
  ];
  readonly #pure: boolean;
  #count = 0;

  /** @param pure whether a piece of code has the same value wherever it stands in a step: not so for elements of arrays */
  constructor(pure: boolean) {
    this.#pure = pure;
  }

  get lines(): readonly string[] {
    return this.#blocks[0]!.lines;
  }

  keep(code: Code): Code {
    if (code.atom) return code;
    if (code.steady) {
      const known = this.#steady.get(code.text);
      const text = known ?? `s${this.#steady.size}`;
      if (known === undefined) {
        this.#steady.set(code.text, text);
        this.before.push(`const ${text} = ${code.text};`);
      }
      return { text, atom: true, steady: true };
    }
    for (const block of this.#pure ? this.#blocks : []) {
      const known = block.names.get(code.text);
      if (known !== undefined) return { text: known, atom: true, steady: false };
    }
    const text = `v${this.#count++}`;
    const { lines, names } = this.#blocks.at(-1)!;
    names.set(code.text, text);
    lines.push(`const ${text} = ${code.text};`);
    return { text, atom: true, steady: false };
  }

  /** Writes lines that give a name its value; the same piece is written once as long as its name is in scope. */
  define(piece: string, write: (name: string) => readonly string[]): Code {
    for (const block of this.#blocks) {
      const known = block.names.get(piece);
      if (known !== undefined) return { text: known, atom: true, steady: false };
    }
    const text = `v${this.#count++}`;
    const { lines, names } = this.#blocks.at(-1)!;
    names.set(piece, text);
    lines.push(...write(text));
    return { text, atom: true, steady: false };
  }

  /** Adds lines as they are. */
  say(...lines: readonly string[]): void {
    this.#blocks.at(-1)!.lines.push(...lines);
  }

  /** Writes a block of its own; names of the given lines, written by an earlier block, are in its scope. */
  within(write: () => readonly string[], inScope: readonly string[] = []): ScopedLines {
    const names = new Map<string, string>();
    for (const line of inScope) {
      const [, name, code] = /^const (v\d+) = (.*);$/.exec(line) ?? [];
      if (name !== undefined && code !== undefined) names.set(code, name);
    }
    const block = { lines: [], names };
    this.#blocks.push(block);
    const result = write();
    this.#blocks.pop();
    return { lines: block.lines, result };
  }
}
