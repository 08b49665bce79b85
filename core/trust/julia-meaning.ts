import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Language, type Node, Parser } from 'web-tree-sitter';
import { FUNCTIONS } from '../src/formula/functions.ts';

/*
 * What programs in Julia mean, for tests on machines that have no Julia: the subset of the language that is written
 * here, read by a grammar of Julia and evaluated by its manual. Vectors count from 1, a vector that is copied is the
 * same vector, `@.` takes every operation element by element, a loop has variables of its own.
 */

type Value = number | string | boolean | null | Value[] | ((...inputs: Value[]) => Value);
type Names = Map<string, Value>;

class Returned {
  readonly value: Value;
  constructor(value: Value) {
    this.value = value;
  }
}
const LEFT = 'break';
const NEXT = 'continue';
type Ending = Returned | typeof LEFT | typeof NEXT | null;

class JuliaError extends Error {}
/** The program has ended by itself. */
class Exited extends Error {}

function num(value: Value | undefined): number {
  if (typeof value === 'number') return value;
  throw new JuliaError(`${String(value)} is not a number`);
}

function list(value: Value | undefined): Value[] {
  if (Array.isArray(value)) return value;
  throw new JuliaError(`${String(value)} is not a vector`);
}

function inDomain(name: string, x: number, isIn: boolean): number {
  if (!isIn) throw new JuliaError(`DomainError: ${name}(${x})`);
  return x;
}

/** Names of a function or a loop: those outside it are changed where they are known there, new ones are its own. */
class Scope {
  readonly #own: Names = new Map();
  readonly #outer: Scope | null;
  readonly #isFunction: boolean;

  constructor(outer: Scope | null, isFunction = false) {
    this.#outer = outer;
    this.#isFunction = isFunction;
  }

  read(name: string): Value {
    const own = this.#own.get(name);
    if (own !== undefined) return own;
    if (this.#outer === null) throw new JuliaError(`UndefVarError: ${name}`);
    return this.#outer.read(name);
  }

  #holder(name: string): Scope | null {
    if (this.#own.has(name)) return this;
    const outer = this.#outer;
    return this.#isFunction || outer === null ? null : outer.#holder(name);
  }

  set(name: string, value: Value): void {
    (this.#holder(name) ?? this).declare(name, value);
  }

  declare(name: string, value: Value): void {
    this.#own.set(name, value);
  }
}

const BINARY: Readonly<Record<string, (a: number, b: number) => Value>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => a / b,
  '^': (a, b) => Math.pow(inDomain('^', a, a >= 0 || Number.isInteger(b)), b),
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
  '==': (a, b) => a === b,
  '!=': (a, b) => a !== b,
};

function children(node: Node): readonly Node[] {
  return node.namedChildren.filter(({ type }) => !type.endsWith('comment'));
}

function field(node: Node, i: number): Node {
  const child = children(node)[i];
  if (child === undefined) throw new JuliaError(`no part ${i} in ${node.text}`);
  return child;
}

function isComparison({ text }: Node): boolean {
  return ['<', '<=', '>', '>=', '==', '!='].includes(text);
}

/** Evaluates programs; what they print goes into `printed`. */
class Evaluator {
  readonly printed: string[] = [];
  readonly errors: string[] = [];
  readonly #global = new Scope(null);
  #caught: unknown = null;
  /** Whether operations are taken element by element. */
  #isBroadcast = false;

  constructor() {
    const own: Readonly<Record<string, (...inputs: Value[]) => Value>> = {
      zeros: (n) => new Array<Value>(num(n)).fill(0),
      push: (to, value) => list(to).push(value ?? null),
      'push!': (to, value) => list(to).push(value ?? null),
      println: (...parts) => {
        if (parts[0] === 'stderr') this.errors.push(String(parts[1]));
        else this.printed.push(parts.map(String).join(''));
        return null;
      },
      join: (parts, by) => list(parts).map(String).join(String(by)),
      string: (value) => String(value),
      exit: () => {
        throw new Exited();
      },
      isempty: (of) => list(of).length === 0,
      rethrow: () => {
        throw this.#caught;
      },
      all: (test, of) => (Array.isArray(of) ? of : [of ?? null]).every((x) => this.#call(test, [x]) === true),
      isfinite: (x) => Number.isFinite(num(x)),
      floor: (...inputs) => Math.floor(num(inputs.at(-1))),
      ceil: (...inputs) => Math.ceil(num(inputs.at(-1))),
      abs: (x) => Math.abs(num(x)),
      sign: (x) => Math.sign(num(x)),
      max: (...inputs) => Math.max(...inputs.map(num)),
      min: (...inputs) => Math.min(...inputs.map(num)),
      sqrt: (x) => Math.sqrt(inDomain('sqrt', num(x), num(x) >= 0 || Number.isNaN(num(x)))),
      log: (x) => Math.log(inDomain('log', num(x), num(x) >= 0 || Number.isNaN(num(x)))),
    };
    for (const name of ['exp', 'sin', 'cos', 'tan', 'atan', 'tanh', 'cbrt'])
      this.#global.declare(name, (x) => FUNCTIONS.get(name)?.evaluate(num(x)) ?? null);
    for (const [name, value] of Object.entries(own)) this.#global.declare(name, value);
    for (const name of ['stderr', 'Int', 'DomainError']) this.#global.declare(name, name);
    this.#global.declare('Inf', Infinity);
    this.#global.declare('nothing', null);
  }

  /** Runs what is at the top but for the guard of main, and then main. */
  main(program: Node, sizes: readonly number[]): void {
    for (const node of children(program)) if (node.type !== 'if_statement') this.#run(node, this.#global);
    try {
      this.#call(this.#global.read('main'), [[...sizes]]);
    } catch (thrown) {
      if (!(thrown instanceof Exited)) throw thrown;
    }
  }

  #call(called: Value | undefined, inputs: readonly Value[]): Value {
    if (typeof called !== 'function') throw new JuliaError(`${String(called)} is not a function`);
    const isBroadcast = this.#isBroadcast;
    if (isBroadcast && inputs.some(Array.isArray))
      return this.#each(inputs, (row) => this.#call(called, row));
    this.#isBroadcast = false;
    const value = called(...inputs);
    this.#isBroadcast = isBroadcast;
    return value;
  }

  #each(inputs: readonly Value[], one: (row: readonly Value[]) => Value): Value {
    const size = Math.max(...inputs.map((input) => (Array.isArray(input) ? input.length : 1)));
    return Array.from({ length: size }, (_, j) =>
      one(inputs.map((input) => (Array.isArray(input) ? (input[j] ?? null) : input))),
    );
  }

  #block(nodes: readonly Node[], scope: Scope): Ending {
    for (const node of nodes) {
      const ending = this.#run(node, scope);
      if (ending !== null) return ending;
    }
    return null;
  }

  #function(node: Node): void {
    const [signature, ...body] = children(node);
    if (signature === undefined) return;
    const head = signature.type === 'call_expression' ? signature : field(signature, 0);
    this.#define(head, (scope) => {
      const ending = this.#block(body, scope);
      return ending instanceof Returned ? ending.value : null;
    });
  }

  #define(head: Node, value: (scope: Scope) => Value): void {
    const names = children(field(head, 1)).map(({ text }) => text);
    this.#global.declare(field(head, 0).text, (...inputs) => {
      const scope = new Scope(this.#global, true);
      names.forEach((name, i) => scope.declare(name, inputs[i] ?? null));
      return value(scope);
    });
  }

  #run(node: Node, scope: Scope): Ending {
    switch (node.type) {
      case 'function_definition':
        this.#function(node);
        return null;
      case 'const_statement':
        return this.#run(field(node, 0), scope);
      case 'local_statement':
        children(field(node, 0).type === 'open_tuple' ? field(node, 0) : node).forEach((name) =>
          scope.declare(name.text, 0),
        );
        return null;
      case 'return_statement':
        return new Returned(this.#value(field(node, 0), scope));
      case 'break_statement':
        return LEFT;
      case 'continue_statement':
        return NEXT;
      case 'if_statement':
        return this.#if(node, scope);
      case 'for_statement':
        return this.#for(node, scope);
      case 'while_statement': {
        const [test, ...body] = children(node);
        while (test !== undefined && this.#value(test, scope) === true) {
          const ending = this.#block(body, new Scope(scope));
          if (ending === LEFT) break;
          if (ending instanceof Returned) return ending;
        }
        return null;
      }
      case 'try_statement':
        return this.#try(node, scope);
      case 'binary_expression':
        return this.#either(node, scope);
      default:
        this.#value(node, scope);
        return null;
    }
  }

  #if(node: Node, scope: Scope): Ending {
    const [test, ...rest] = children(node);
    const otherwise = rest.find(({ type }) => type === 'else_clause');
    const isSo = test !== undefined && this.#value(test, scope) === true;
    const body = isSo
      ? rest.filter(({ type }) => type !== 'else_clause')
      : otherwise === undefined
        ? []
        : children(otherwise);
    return this.#block(body, scope);
  }

  #for(node: Node, scope: Scope): Ending {
    const [binding, ...body] = children(node);
    if (binding === undefined) return null;
    const [name, , over] = children(binding);
    if (name === undefined || over === undefined) throw new JuliaError(binding.text);
    for (const value of list(this.#value(over, scope))) {
      const inner = new Scope(scope);
      inner.declare(name.text, value);
      const ending = this.#block(body, inner);
      if (ending === LEFT) break;
      if (ending instanceof Returned) return ending;
    }
    return null;
  }

  #try(node: Node, scope: Scope): Ending {
    const parts = children(node);
    const body = parts.filter(({ type }) => type !== 'catch_clause');
    const handler = parts.find(({ type }) => type === 'catch_clause');
    try {
      return this.#block(body, scope);
    } catch (thrown) {
      if (thrown instanceof Exited || handler === undefined) throw thrown;
      this.#caught = thrown;
      const [name, ...lines] = children(handler);
      const inner = new Scope(scope);
      inner.declare(name?.text ?? '', String(thrown));
      return this.#block(lines, inner);
    }
  }

  /** `test || statement` and `test && statement`, or any other value. */
  #either(node: Node, scope: Scope): Ending {
    const [left, operator, right] = children(node);
    if (left === undefined || right === undefined || (operator?.text !== '||' && operator?.text !== '&&')) {
      this.#value(node, scope);
      return null;
    }
    const isSo = this.#value(left, scope) === true;
    return isSo === (operator.text === '&&') ? this.#run(right, scope) : null;
  }

  #assign(to: Node, value: Value, scope: Scope): void {
    switch (to.type) {
      case 'identifier':
        scope.set(to.text, value);
        return;
      case 'open_tuple': {
        const values = list(value);
        children(to).forEach((part, i) => this.#assign(part, values[i] ?? null, scope));
        return;
      }
      case 'index_expression': {
        const at = num(this.#value(field(field(to, 1), 0), scope));
        const vector = list(this.#value(field(to, 0), scope));
        if (!(at >= 1 && at <= vector.length)) throw new JuliaError(`BoundsError: ${to.text}`);
        vector[at - 1] = value;
        return;
      }
      case 'call_expression':
        throw new JuliaError(`${to.text} is not a place`);
      default:
        throw new JuliaError(`${to.type} is not read here`);
    }
  }

  #operate(operator: string, left: Value, right: Value): Value {
    if (operator === 'isa') return String(left).includes(String(right));
    const act = BINARY[operator];
    if (act === undefined) throw new JuliaError(`${operator} is not read here`);
    if (this.#isBroadcast && (Array.isArray(left) || Array.isArray(right)))
      return this.#each([left, right], ([a, b]) => act(num(a), num(b)));
    return act(num(left), num(right));
  }

  #binary(node: Node, scope: Scope): Value {
    const [left, operator, right] = children(node);
    if (left === undefined || operator === undefined || right === undefined) throw new JuliaError(node.text);
    if (operator.text === '&&')
      return this.#value(left, scope) === true && this.#value(right, scope) === true;
    if (operator.text === '||')
      return this.#value(left, scope) === true || this.#value(right, scope) === true;
    // a chain of comparisons: a < b < c
    const middle = left.type === 'binary_expression' && isComparison(operator) ? children(left) : [];
    if (middle[1] !== undefined && middle[2] !== undefined && isComparison(middle[1]))
      return (
        this.#value(left, scope) === true &&
        this.#operate(operator.text, this.#value(middle[2], scope), this.#value(right, scope))
      );
    return this.#operate(operator.text, this.#value(left, scope), this.#value(right, scope));
  }

  #text(node: Node, scope: Scope): string {
    return node.children
      .map((part) => {
        if (part.type === 'content') return part.text;
        if (part.type === 'string_interpolation') return String(this.#value(field(part, 0), scope));
        return '';
      })
      .join('');
  }

  #value(node: Node, scope: Scope): Value {
    switch (node.type) {
      case 'integer_literal':
      case 'float_literal':
        return Number(node.text);
      case 'boolean_literal':
        return node.text === 'true';
      case 'identifier':
        return scope.read(node.text);
      case 'parenthesized_expression':
        return this.#value(field(node, 0), scope);
      case 'string_literal':
        return this.#text(node, scope);
      case 'character_literal':
        return node.text.slice(1, -1);
      case 'unary_expression': {
        const value = this.#value(field(node, 1), scope);
        if (field(node, 0).text === '!') return value !== true;
        return this.#operate('*', -1, value);
      }
      case 'binary_expression':
        return this.#binary(node, scope);
      case 'ternary_expression':
        return this.#value(field(node, this.#value(field(node, 0), scope) === true ? 1 : 2), scope);
      case 'range_expression': {
        const ends = children(node)
          .flatMap((part) => (part.type === 'range_expression' ? children(part) : [part]))
          .map((part) => num(this.#value(part, scope)));
        const [from = 0, step = 1, to = 0] = ends.length === 3 ? ends : [ends[0], 1, ends[1]];
        return Array.from(
          { length: Math.max(0, Math.floor((to - from) / step) + 1) },
          (_, i) => from + i * step,
        );
      }
      case 'vector_expression':
      case 'tuple_expression':
      case 'open_tuple':
        return children(node).flatMap((part) =>
          part.type === 'splat_expression'
            ? list(this.#value(field(part, 0), scope))
            : [this.#value(part, scope)],
        );
      case 'index_expression':
        return this.#element(node, scope);
      case 'macrocall_expression': {
        this.#isBroadcast = true;
        const value = this.#value(field(field(node, 1), 0), scope);
        this.#isBroadcast = false;
        return value;
      }
      case 'call_expression': {
        const inputs = children(field(node, 1)).map((input) => this.#value(input, scope));
        if (field(node, 0).type === 'operator') return inputs[0] !== true;
        return this.#call(this.#value(field(node, 0), scope), inputs);
      }
      case 'assignment': {
        const [to, , from] = children(node);
        if (to === undefined || from === undefined) throw new JuliaError(node.text);
        if (to.type === 'call_expression') this.#define(to, (inner) => this.#value(from, inner));
        else this.#assign(to, this.#value(from, scope), scope);
        return null;
      }
      case 'compound_assignment_expression': {
        const [to, operator, from] = children(node);
        if (to === undefined || operator === undefined || from === undefined) throw new JuliaError(node.text);
        const value = this.#operate(
          operator.text.slice(0, -1),
          this.#value(to, scope),
          this.#value(from, scope),
        );
        this.#assign(to, value, scope);
        return null;
      }
      default:
        throw new JuliaError(`${node.type} is not read here: ${node.text}`);
    }
  }

  #element(node: Node, scope: Scope): Value {
    const vector = list(this.#value(field(node, 0), scope));
    const [index] = children(field(node, 1));
    if (index === undefined) throw new JuliaError(node.text);
    if (index.type === 'range_expression') {
      const at = list(this.#value(index, scope)).map(num);
      return at.map((i) => vector[i - 1] ?? null);
    }
    if (index.text === 'end') return vector.at(-1) ?? null;
    const at = num(this.#value(index, scope));
    const value = vector[at - 1];
    if (!(at >= 1) || value === undefined) throw new JuliaError(`BoundsError: ${node.text}`);
    return value;
  }
}

let known: Promise<Parser> | null = null;

async function julia(): Promise<Parser> {
  await Parser.init();
  const parser = new Parser();
  const grammar = join(process.cwd(), 'node_modules/tree-sitter-julia/tree-sitter-julia.wasm');
  parser.setLanguage(await Language.load(readFileSync(grammar)));
  return parser;
}

/**
 * What a program in Julia prints.
 *
 * @throws JuliaError for what is no Julia, or not of the subset that is read here
 */
export async function runJulia(
  program: string,
  sizes: readonly number[] = [],
): Promise<{ readonly printed: readonly string[]; readonly errors: readonly string[] }> {
  known ??= julia();
  // the grammar takes `2*(` for 2 times a call of the operator
  const tree = (await known).parse(program.replaceAll(/([*/-])\(/g, '$1 ('));
  if (tree === null || tree.rootNode.hasError) throw new JuliaError(`not read as Julia:\n${program}`);
  const evaluator = new Evaluator();
  evaluator.main(tree.rootNode, sizes);
  return { printed: evaluator.printed, errors: evaluator.errors };
}
