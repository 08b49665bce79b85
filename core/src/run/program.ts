import { type Expression, name as nameLeaf, rewrite } from '../formula/expression.ts';
import type { Method, Shape } from '../method/method.ts';

/** A place for a number or a vector inside one step; the present value y has register 0. */
export type Register = number;

/** One instruction of a step. Leaves of its expressions are `t`, `h`, constants and registers. */
export type Instruction =
  | {
      /** A number, or a vector made of others component by component. */
      readonly kind: 'combine';
      readonly into: Register;
      readonly shape: Shape;
      readonly value: Expression;
      readonly line: string;
    }
  | {
      /** f at a time and a value. */
      readonly kind: 'rate';
      readonly into: Register;
      readonly time: Expression;
      readonly at: Register;
      readonly line: string;
    };

/** A named quantity of a step, to be shown in a table of steps. */
export interface Stage {
  readonly name: string;
  readonly shape: Shape;
  readonly register: Register;
}

/** A method as instructions, whatever the size of the problem. */
export interface Program {
  readonly instructions: readonly Instruction[];
  /** The register that holds y[n+1] after the last instruction. */
  readonly next: Register;
  readonly stages: readonly Stage[];
}

export const PRESENT: Register = 0;

/** A register as a leaf; no text of a user can hold such a name. */
export function registerLeaf(register: Register): Expression {
  return nameLeaf(`#${register}`);
}

/** The register behind a leaf, or null for any other name. */
export function registerOf(leafName: string): Register | null {
  return leafName.startsWith('#') ? Number(leafName.slice(1)) : null;
}

/**
 * Lowers a method to instructions: every call of f becomes one of its own, in the order of the text,
 * so that f is evaluated exactly as often as the text says.
 */
export function lower(method: Method): Program {
  const instructions: Instruction[] = [];
  const stages: Stage[] = [];
  const named = new Map<string, Register>([['y', PRESENT]]);
  let registers = PRESENT + 1;

  const expand = (expression: Expression, line: string): Expression =>
    rewrite(expression, (node) => {
      if (node.kind === 'indexed') return node.name === 'y' ? registerLeaf(PRESENT) : nameLeaf('t');
      if (node.kind === 'name') {
        const register = named.get(node.name);
        return register === undefined ? null : registerLeaf(register);
      }
      if (node.kind !== 'call' || node.name !== 'f') return null;
      const [time, value] = node.inputs;
      if (time === undefined || value === undefined) return null;
      const at = place(expand(value, line), 'vector', line);
      const into = registers++;
      instructions.push({ kind: 'rate', into, time: expand(time, line), at, line });
      return registerLeaf(into);
    });

  /** The register of a value: its own where it is just a register, a new one otherwise. */
  const place = (value: Expression, shape: Shape, line: string): Register => {
    const bare = value.kind === 'name' ? registerOf(value.name) : null;
    if (bare !== null) return bare;
    const into = registers++;
    instructions.push({ kind: 'combine', into, shape, value, line });
    return into;
  };

  let next = PRESENT;
  for (const statement of method.statements) {
    const line = statement.kind === 'let' ? statement.name : 'y[n+1]';
    const shape = statement.kind === 'let' ? statement.shape : 'vector';
    const register = place(expand(statement.value, line), shape, line);
    if (statement.kind === 'let') {
      named.set(statement.name, register);
      stages.push({ name: statement.name, shape, register });
    } else next = register;
  }
  return { instructions, next, stages };
}
