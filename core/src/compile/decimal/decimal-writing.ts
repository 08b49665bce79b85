import type { Relation } from '../../formula/expression.ts';
import { FUNCTIONS } from '../../formula/functions.ts';
import type { LocalSolve, LocalWriting } from '../loops/local-vectors.ts';
import type { CodeNode, NumberNode, Operation } from '../nodes/code-node.ts';
import { localName } from '../nodes/print.ts';
import { frame, type Statement } from '../nodes/statement.ts';

/** Functions of the notation by the names under which code in doubles calls them. */
const NAMES: ReadonlyMap<string, string> = new Map([...FUNCTIONS].map(([name, { code }]) => [code, name]));

const OPERATIONS = { '+': 'plus', '-': 'minus', '*': 'times', '/': 'div' } as const;

const RELATIONS: Readonly<Record<Relation, (left: string, right: string) => string>> = {
  '<': (left, right) => `${left}.lt(${right})`,
  '<=': (left, right) => `${left}.lte(${right})`,
  '>': (left, right) => `${left}.gt(${right})`,
  '>=': (left, right) => `${left}.gte(${right})`,
  '==': (left, right) => `${left}.eq(${right})`,
  '!=': (left, right) => `!${left}.eq(${right})`,
};

/**
 * Code in decimals: the same nodes as of code in doubles, an operation as a call of decimal.js. Numbers are read from a
 * list C, since each arithmetic has its own.
 */
export class DecimalWriting implements LocalWriting {
  readonly #places = new Map<string, number>();
  readonly #constants: NumberNode[] = [];

  /** The numbers of the code, in the order of C. */
  get constants(): readonly NumberNode[] {
    return this.#constants;
  }

  readonly print = (piece: CodeNode): string => {
    switch (piece.kind) {
      case 'number':
        return `C[${this.#placeOf(piece)}]`;
      case 'name':
        return piece.name;
      case 'kept':
        return localName(piece);
      case 'operation':
        return this.#operation(piece);
    }
  };

  readonly solve = ({
    id,
    names,
    residual,
    column,
    guess,
    states,
    newton,
  }: LocalSolve): readonly Statement[] => {
    const all = names.join(', ');
    const scale = `A.call("max", [${states.map((name) => `${name}.abs()`).join(', ')}])`;
    const solution = names.map((name) => `A.stored(${name})`).join(', ');
    return [
      frame(
        `[${all}] = SOLVE(A, { id: ${id}, guess: [${all}], scale: ${scale}${guess === 'present' ? '' : '.div(h)'}, at: (z) => {`,
        `[${all}] = z;`,
      ),
      ...residual.statements,
      frame(
        `return { results: [${residual.result.map(this.print).join(', ')}], columns: () => {`,
        'const columns = [];',
        `const D = z.map(() => A.zero);`,
        `for (let c = 0; c < ${names.length}; c++) {`,
        'D[c] = A.one;',
      ),
      ...column.statements,
      frame(
        `columns.push([${column.result.map(this.print).join(', ')}]);`,
        'D[c] = A.zero;',
        '}',
        'return columns;',
        '} };',
        `} }, S, ${newton});`,
        `[${all}] = [${solution}];`,
      ),
    ];
  };

  #placeOf(node: NumberNode): number {
    const known = this.#places.get(node.key);
    if (known !== undefined) return known;
    const place = this.#constants.length;
    this.#places.set(node.key, place);
    this.#constants.push(node);
    return place;
  }

  #operation({ op, inputs }: Operation): string {
    const parts = inputs.map(this.print);
    const [a = '', b = '', c = '', d = ''] = parts;
    if (op === 'negate') return `${a}.neg()`;
    if (op === 'single') return a;
    if (typeof op === 'string') return `${a}.${OPERATIONS[op]}(${b})`;
    if ('choose' in op) return `(${RELATIONS[op.choose](a, b)} ? ${c} : ${d})`;
    if ('read' in op) return op.read;
    if (op.call === 'pow') return `A.operate("^", ${a}, ${b})`;
    if (op.call === 'stored') return `A.stored(${a})`;
    return `A.call("${NAMES.get(op.call) ?? op.call}", [${parts.join(', ')}])`;
  }
}
