import type { Program } from '../../program/program.ts';
import type { Register } from '../../program/step-tree.ts';
import { addressName } from './address-name.ts';

/** Whether the last combination may be written straight over y: it needs it component by component only. */
export function isInPlace({ instructions, next, present, stages, kept }: Program): boolean {
  const last = instructions.at(-1);
  return (
    present.length === 1 &&
    last?.kind === 'combine' &&
    last.into === next[0] &&
    !kept.some(({ of }) => of === 'y') &&
    !stages.some(({ register }) => register === next[0] || register === present[0])
  );
}

/** Whether a new value is also another one, so that its array cannot be handed on. */
function isShared({ next, presentRhs, kept }: Program, register: Register, i: number): boolean {
  return (
    next.some((other, k) => k !== i && other === register) ||
    register === presentRhs ||
    kept.some((k) => k.register === register)
  );
}

/**
 * The lines that end a step: arrays and their addresses change places, so that what was the present value becomes the one before, and
 * so on; nothing is copied but a new value whose array is wanted elsewhere.
 *
 * @param array the name of the array of a register
 */
export function rotationLines(program: Program, array: (register: Register) => string): readonly string[] {
  const { kept, present, next, presentRhs } = program;
  const lines: string[] = [];
  const chain = (registers: readonly Register[]): void => {
    const arrays = registers.map(array);
    for (const names of [arrays, arrays.map(addressName)]) {
      const [first] = names;
      if (names.length < 2 || first === undefined) return;
      lines.push(`{ const free = ${names.at(-1)!};`);
      for (let i = names.length - 1; i > 0; i -= 1) lines.push(`${names[i]} = ${names[i - 1]};`);
      lines.push(`${first} = free; }`);
    }
  };
  const rightHandSides = kept.filter(({ of }) => of === 'f').map(({ register }) => register);
  if (presentRhs !== null) chain([presentRhs, ...rightHandSides]);
  if (isInPlace(program)) return lines;
  present.forEach((register, i) => {
    const variable = present.length === 1 ? 'y' : (['x', 'v'] as const)[i];
    const values = kept.filter(({ of }) => of === variable).map((k) => k.register);
    const made = next[i]!;
    const isOwn = !present.includes(made) && !values.includes(made) && !isShared(program, made, i);
    if (isOwn) chain([made, register, ...values]);
    else {
      chain([register, ...values]);
      lines.push(`${array(register)}.set(${array(made)});`);
    }
  });
  return lines;
}
