import { count } from '../../text/number-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { type Inlined, INLINED, memoryLines, PAIR } from './inlined.ts';
import { isAtom, type TemporaryNode, temporaryNode, type CodeNode, readNode } from './code-node.ts';
import { type Block, frame, type Statement } from './statement.ts';

/** Most operations of a step that are written out; loops over a family count once. */
const MAX_OPERATIONS = 600_000;
/**
 * Most functions that are written out in one loop; further ones are called. An engine does not optimize a function of more than
 * some tens of kilobytes at all, and takes long for one that is nearly as large.
 */
const MAX_INLINED = 24;

/** What generated code computes with. */
export type CodeArithmetic = 'double' | 'single' | 'decimal';

/** How code is generated. */
export interface ScopeOptions {
  /** Whether a node has the same value everywhere in a step: not so for elements of arrays. */
  readonly pure: boolean;
  /** In single precision every operation is rounded to 32 bits. */
  readonly arithmetic: CodeArithmetic;
  /** Whether sine, cosine and exponential function are written out where they change from step to step. */
  readonly inlines: boolean;
}

interface OpenBlock {
  readonly statements: Statement[];
  readonly names: Map<string, TemporaryNode>;
}

/** A function that is written out, in its block. */
interface Found {
  readonly statements: Statement[];
  readonly at: number;
  readonly single: Extract<Statement, { readonly kind: 'inlined' }>;
}

/**
 * Puts nodes of code aside: loop-invariant ones before the loop over steps, others in the block that is being written.
 * The same node is put aside once as long as its name is in scope.
 */
export class Scopes {
  readonly before: Statement[] = [];
  readonly arithmetic: CodeArithmetic;
  /** Values of parameters that the code reads as P[0], P[1], ... */
  readonly parameters: number[] = [];
  readonly #loopInvariant = new Map<string, TemporaryNode>();
  readonly #blocks: OpenBlock[] = [{ statements: [], names: new Map() }];
  readonly #pure: boolean;
  readonly #inlines: boolean;
  #count = 0;
  #spent = 0;
  #inlined = 0;

  constructor({ pure, arithmetic, inlines }: ScopeOptions) {
    this.#pure = pure;
    this.arithmetic = arithmetic;
    this.#inlines = inlines;
  }

  get statements(): readonly Statement[] {
    return this.#blocks[0]!.statements;
  }

  /** Operations of the nodes that have been put aside. */
  get spent(): number {
    return this.#spent;
  }

  /** How many nodes that are not loop-invariant have been put aside. */
  get count(): number {
    return this.#count;
  }

  /**
   * Puts a node aside, or finds it where it was.
   *
   * @throws Refusal where the code becomes too large to be compiled in a few seconds
   */
  keep(value: CodeNode): Exclude<CodeNode, { kind: 'operation' }> {
    if (isAtom(value)) return value;
    this.#spend(value.operations);
    if (value.loopInvariant) return this.#keepInvariant(value);
    const known = this.#pure ? this.#inScope(value.key) : null;
    if (known !== null) return known;
    const kept = this.#next(value.key);
    this.say({ kind: 'keep', kept, value });
    return kept;
  }

  /** A function of one input, written out if it is one of those and they are not too many; null where it is to be called. */
  inlined(name: string, input: CodeNode): CodeNode | null {
    const of = INLINED.get(name);
    if (of === undefined || !this.#inlines || input.loopInvariant) return null;
    return this.#define(name, of, this.keep(input));
  }

  /** The value of a parameter, which is not in the code but read before the loop. */
  parameter(value: number): CodeNode {
    const known = this.parameters.indexOf(value);
    const place = known < 0 ? this.parameters.push(value) - 1 : known;
    return this.#keepInvariant(readNode(`P[${place}]`, true));
  }

  /** Adds statements as they are. */
  say(...statements: readonly Statement[]): void {
    this.#blocks.at(-1)!.statements.push(...statements);
  }

  /** Writes a block of its own; what an earlier block has put aside may be in its scope. */
  within(write: () => readonly CodeNode[], inScope: readonly Statement[] = []): Block {
    const names = new Map<string, TemporaryNode>();
    for (const statement of inScope)
      if (statement.kind === 'keep') names.set(statement.value.key, statement.kept);
    const block: OpenBlock = { statements: [], names };
    this.#blocks.push(block);
    const result = write();
    this.#blocks.pop();
    return { statements: block.statements, result };
  }

  #spend(operations: number): void {
    this.#spent += operations;
    if (this.#spent > MAX_OPERATIONS)
      throw new Refusal(
        'size',
        `one step of this method on this problem takes more than ${count(MAX_OPERATIONS)} operations, written out; take fewer components, stages or derivatives`,
      );
  }

  #keepInvariant(value: CodeNode): TemporaryNode {
    const known = this.#loopInvariant.get(value.key);
    if (known !== undefined) return known;
    const kept = temporaryNode(this.#loopInvariant.size, true);
    this.#loopInvariant.set(value.key, kept);
    this.before.push({ kind: 'keep', kept, value });
    return kept;
  }

  #define(name: string, of: Inlined, input: CodeNode): CodeNode | null {
    const keyOf = (of: string): string => `written out ${of}(${input.key})`;
    const known = this.#inScope(keyOf(name));
    if (known !== null) return known;
    const partner = name === PAIR.first ? PAIR.second : name === PAIR.second ? PAIR.first : null;
    const made = partner === null ? null : this.#inScope(keyOf(partner));
    const single = made === null ? null : this.#found(made);
    if (single !== null) return this.#pair(single, this.#next(keyOf(name)), name === PAIR.first);
    if (this.#inlined >= MAX_INLINED) return null;
    this.#inlined += 1;
    const kept = this.#next(keyOf(name));
    const place = String(kept.id);
    this.before.push(...memoryLines(of, place).map((line) => frame(line)));
    this.say({ kind: 'inlined', kept, second: null, of, place, input, coefficients: this.#coefficients(of) });
    return kept;
  }

  #coefficients(of: Inlined): readonly CodeNode[] {
    return of.coefficients.map((place) => this.#keepInvariant(readNode(`COEFFICIENTS[${place}]`, true)));
  }

  /** Where a function that is written out already is. */
  #found(made: TemporaryNode): Found | null {
    for (const { statements } of this.#blocks) {
      const at = statements.findLastIndex((one) => one.kind === 'inlined' && one.kept === made);
      const single = statements[at];
      if (single?.kind === 'inlined') return { statements, at, single };
    }
    return null;
  }

  /** Makes one pair of a function that is written out already and its partner, in the same place. */
  #pair({ statements, at, single }: Found, kept: TemporaryNode, isFirst: boolean): TemporaryNode {
    const results = isFirst ? { kept, second: single.kept } : { kept: single.kept, second: kept };
    statements[at] = { ...single, ...results, of: PAIR.of, coefficients: this.#coefficients(PAIR.of) };
    return kept;
  }

  #inScope(key: string): TemporaryNode | null {
    for (const { names } of this.#blocks) {
      const known = names.get(key);
      if (known !== undefined) return known;
    }
    return null;
  }

  #next(key: string): TemporaryNode {
    const kept = temporaryNode(this.#count++, false);
    this.#blocks.at(-1)!.names.set(key, kept);
    return kept;
  }
}
