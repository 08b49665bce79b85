import { primed } from '../text/primes.ts';
import { type Expression, type NameLeaf, rewrite } from '../formula/expression.ts';
import { bounded } from '../formula/measure.ts';
import { type Complaints, PlaceError } from '../text/place.ts';
import type { Block, Problem, TypedDerivative, Unknown } from './problem.ts';
import type { Statement } from './statement.ts';

type Equation = Statement & { readonly kind: 'equation' };

function leftLeaf(equation: Equation): (NameLeaf & { readonly kind: 'name' }) | null {
  const { left } = equation;
  return left.kind === 'name' && left.primes > 0 ? left : null;
}

/**
 * Tells the equations that give a right-hand side from derivatives typed by hand: where several equations have one and
 * the same unknown alone on their left, the lowest derivative is the right-hand side and the higher ones are typed.
 */
export function partTyped(statements: readonly Statement[]): {
  readonly rightHandSides: readonly Statement[];
  readonly typed: readonly Equation[];
} {
  const lowest = new Map<string, number>();
  for (const statement of statements) {
    const leaf = statement.kind === 'equation' ? leftLeaf(statement) : null;
    if (leaf !== null) lowest.set(leaf.name, Math.min(lowest.get(leaf.name) ?? leaf.primes, leaf.primes));
  }
  const isTyped = (statement: Statement): statement is Equation => {
    const leaf = statement.kind === 'equation' ? leftLeaf(statement) : null;
    return leaf !== null && leaf.primes > (lowest.get(leaf.name) ?? 0);
  };
  return { rightHandSides: statements.filter((s) => !isTyped(s)), typed: statements.filter(isTyped) };
}

/**
 * Reads derivatives typed by hand, the lower ones first, and puts right-hand sides in for the derivatives they name.
 */
export function readTyped(
  equations: readonly Equation[],
  unknowns: readonly Unknown[],
  complaints: Complaints,
): readonly TypedDerivative[] {
  const found: TypedDerivative[] = [];
  const placed = equations.flatMap((equation) => {
    const leaf = leftLeaf(equation);
    return leaf === null ? [] : [{ equation, name: leaf.name, order: leaf.primes }];
  });
  for (const { equation, name, order } of placed.sort((a, b) => a.order - b.order)) {
    const own = primed(name, order);
    complaints.attempt(() => {
      const unknown = unknowns.find((u) => u.name === name);
      if (unknown === undefined) return;
      if (unknown.range !== null)
        throw new PlaceError(equation.at, `${name} is a family; derivatives by hand are for single unknowns`);
      if (found.some((typed) => typed.unknown === name && typed.order === order))
        throw new PlaceError(equation.at, `${own} has two equations; remove one of them`);
      const value = rewrite(equation.right, (node) => {
        if (node.kind !== 'name') return null;
        const of = unknowns.find((u) => u.name === node.name);
        if (of === undefined || node.primes < of.order) return null;
        if (node.primes === of.order && of.range === null) return of.highest;
        const lower = found.find((typed) => typed.unknown === node.name && typed.order === node.primes);
        if (lower === undefined || (lower.unknown === name && lower.order >= order))
          throw new PlaceError(
            node.at,
            `${primed(node.name, node.primes)} is not known here; ${own} may contain ${primed(of.name, of.order)} and what is typed for derivatives below ${own}`,
          );
        return lower.value;
      });
      bounded(value, { at: equation.at, what: `${own} after substitution of the equations` });
      found.push({ unknown: name, order, written: equation.right, value, at: equation.at });
    });
  }
  return found;
}

/** What is typed for the total derivative of the given order of a block's right-hand side; null where nothing is. */
export function typedDerivative(problem: Problem, block: Block, order: number): Expression | null {
  const needed = block.derivative + 1 + order;
  const typed = problem.typed.find((t) => t.unknown === block.unknown.name && t.order === needed);
  return typed?.value ?? null;
}
