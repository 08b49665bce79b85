import { lower } from '../../compile/program/lowering.ts';
import type { Instruction, Program } from '../../compile/program/program.ts';
import type { Register, StepLeaf, StepTree } from '../../compile/program/step-tree.ts';
import { meaningsOf } from '../../formula/expression.ts';
import type { Method } from '../../method/method.ts';
import { Refusal } from '../../text/refusal.ts';
import type { Keep, Line, StepRoutine, Writing } from './language.ts';
import { Names } from './names.ts';
import { writeFormula } from './write-formula.ts';

/** The name of a value that is kept. */
function keptName(of: string, back: number): string {
  return `${of}_${back}`;
}

function refuse(instruction: Instruction): never {
  const why =
    instruction.kind === 'solve'
      ? 'an implicit formula, which is solved by Newton’s method'
      : 'derivatives of f, which would have to be written out';
  throw new Refusal('form', `a program is made of explicit formulas without f'; this one has ${why}`);
}

/** How often each register is read. */
function reads({ instructions, next }: Program): ReadonlyMap<Register, number> {
  const counts = new Map<Register, number>();
  const count = (register: Register): void => {
    counts.set(register, (counts.get(register) ?? 0) + 1);
  };
  const tree = (value: StepTree): void =>
    meaningsOf(value).forEach((leaf) => {
      if (leaf.kind === 'register') count(leaf.register);
    });
  for (const instruction of instructions) {
    if (instruction.kind === 'combine') tree(instruction.value);
    else if (instruction.kind === 'rate') {
      tree(instruction.time);
      instruction.at.forEach(count);
    } else refuse(instruction);
  }
  next.forEach(count);
  return counts;
}

/**
 * One step of a method as lines: its stages under their own names, what it keeps, what comes next.
 *
 * @param isOne whether the problem has one component, so that vectors are numbers
 * @param width elements of each vector
 * @throws Refusal for implicit formulas and derivatives of f
 */
export function stepRoutine(
  title: string,
  method: Method,
  writing: Writing,
  isOne: boolean,
  width: number,
  name: string,
  taken: readonly string[],
  used: (name: string) => void,
): StepRoutine {
  const program = lower(method, isOne && method.form === 'first order');
  const names = new Names(taken);
  const rate = program.form === 'first order' ? 'f' : 'a';
  const vectors = program.form === 'first order' ? ['y'] : ['x', 'v'];
  const called = new Map<Register, string>();
  program.present.forEach((register, i) => called.set(register, vectors[i]!));
  for (const { of, back, register } of program.kept) called.set(register, keptName(of, back));
  if (program.presentRate !== null) called.set(program.presentRate, keptName('f', 0));
  const [arrays, numbers]: [string[], string[]] = [[], []];
  const counts = reads(program);
  const scalars = new Set<Register>();
  /** Formulas of one use that stand where they are used. */
  const inlined = new Map<Register, string>();
  const stages = new Map(program.stages.map((stage) => [stage.register, stage.name]));
  const nameOf = (register: Register, isScalar: boolean): string => {
    const known = called.get(register);
    if (known !== undefined) return known;
    const place = program.next.indexOf(register);
    const made = names.make(stages.get(register) ?? (place >= 0 ? `${vectors[place] ?? ''}_new` : 'at'));
    called.set(register, made);
    (isScalar || isOne ? numbers : arrays).push(made);
    if (isScalar) scalars.add(register);
    return made;
  };
  let usesTime = false;
  const leaf = (to: StepLeaf, element: (vector: string) => string): string => {
    switch (to.kind) {
      case 'time':
        usesTime = true;
        return to.offset === 0 ? 't' : `(start + ${writing.counted('n', to.offset)}*h)`;
      case 'step':
        return 'h';
      case 'constant':
        return to.value < 0 ? `(-${writing.number(-to.value)})` : writing.number(to.value);
      case 'register': {
        const inner = inlined.get(to.register);
        if (inner !== undefined) return inner;
        const own = nameOf(to.register, false);
        return isOne || scalars.has(to.register) ? own : element(own);
      }
      case 'tangent':
        return 'nan';
    }
  };
  const running = (vector: string): string => writing.running(vector, 'j', 0);
  const formula = (tree: StepTree): string =>
    writeFormula(tree, writing, ({ to }) => leaf(to, running), used);
  const body: Line[] = [];
  for (const instruction of program.instructions) {
    if (instruction.kind === 'combine') {
      const { into, value, shape } = instruction;
      const text = formula(value);
      if (isOne && !stages.has(into) && counts.get(into) === 1 && !program.next.includes(into)) {
        inlined.set(into, text);
        continue;
      }
      const isScalar = shape === 'scalar';
      const to = nameOf(into, isScalar);
      if (isScalar || isOne) body.push({ kind: 'set', to, value: text });
      else
        body.push({
          kind: 'each',
          from: 0,
          below: width,
          body: [{ kind: 'set', to: running(to), value: text }],
        });
    } else if (instruction.kind === 'rate') {
      const to = nameOf(instruction.into, false);
      if (instruction.into === program.presentRate) (isOne ? numbers : arrays).push(to);
      const inputs = [
        formula(instruction.time),
        ...instruction.at.map((register) => inlined.get(register) ?? nameOf(register, false)),
      ];
      body.push(
        isOne
          ? { kind: 'set', to, value: `${rate}(${inputs.join(', ')})` }
          : { kind: 'routine', name: rate, inputs, into: to },
      );
    } else refuse(instruction);
  }
  const kept = [...program.kept]
    .sort((a, b) => b.back - a.back)
    .map(({ of, back }): Keep => ({
      name: keptName(of, back),
      from: back > 1 ? keptName(of, back - 1) : of === 'f' ? keptName('f', 0) : of,
    }));
  const next = program.next.map((register) => inlined.get(register) ?? nameOf(register, false));
  return { name, title, text: method.text, vectors, kept, arrays, numbers, body, next, usesTime };
}
