import type { Instruction, Program } from '../../program/program.ts';
import type { Register, StepTree } from '../../program/step-tree.ts';
import { meaningsOf } from '../../formula/expression.ts';

/** How often each register is read; what Newton's method goes over counts as read often. */
export function registerReads({ instructions, next }: Program): ReadonlyMap<Register, number> {
  const counts = new Map<Register, number>();
  const count = (register: Register, times = 1): void => {
    counts.set(register, (counts.get(register) ?? 0) + times);
  };
  const tree = (value: StepTree, times: number): void =>
    meaningsOf(value).forEach((leaf) => {
      if (leaf.kind === 'register') count(leaf.register, times);
    });
  const go = (instruction: Instruction, times: number): void => {
    switch (instruction.kind) {
      case 'combine':
      case 'typed':
        tree(instruction.value, times);
        return;
      case 'rhs':
        tree(instruction.time, times);
        instruction.at.forEach((register) => count(register, times));
        return;
      case 'derivative':
      case 'partial':
        tree(instruction.time, times);
        // it is read more than once where it is written out
        count(instruction.at, 2);
        if (instruction.kind === 'partial' && instruction.along !== null) count(instruction.along, 2);
        return;
      case 'solve':
        instruction.values.forEach((inner) => go(inner, 2));
        [...instruction.unknowns, ...instruction.results].forEach((register) => count(register, 2));
    }
  };
  instructions.forEach((instruction) => go(instruction, 1));
  next.forEach((register) => count(register));
  return counts;
}
