import { CONSTANTS } from '../formula/functions.ts';
import { type Code, type CodeTarget, emit, literal } from '../formula/javascript.ts';
import type { Block, Problem } from '../problem/problem.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import type { Precision } from './precision.ts';
import type { Instruction, Program, Register } from './program.ts';
import { PRESENT, registerOf } from './program.ts';
import { Placing } from './rate-leaf.ts';

/**
 * Straight-line code for one step: every component and stage is a local number of its own.
 * For problems of a few components; names are the generator's own throughout.
 */
export function straightLine(problem: Problem, program: Program, precision: Precision): GeneratedLoop {
  const single = precision === 'single';
  const before: string[] = [];
  const body: string[] = [];
  const steadyNames = new Map<string, string>();
  let names = 0;

  const declare = (code: Code): Code => {
    if (code.atom) return code;
    if (code.steady) {
      const text = steadyNames.get(code.text) ?? `s${steadyNames.size}`;
      if (!steadyNames.has(code.text)) {
        steadyNames.set(code.text, text);
        before.push(`const ${text} = ${code.text};`);
      }
      return { text, atom: true, steady: true };
    }
    const text = `v${names++}`;
    body.push(`const ${text} = ${code.text};`);
    return { text, atom: true, steady: false };
  };

  const present = Array.from({ length: problem.size }, (_, j): Code => ({
    text: `y${j}`,
    atom: true,
    steady: false,
  }));
  const vectors = new Map<Register, readonly Code[]>([[PRESENT, present]]);
  const scalars = new Map<Register, Code>();
  const time: Code = { text: 't', atom: true, steady: false };
  const step: Code = { text: 'h', atom: true, steady: true };

  /** Leaves of a method's expression, for one component. */
  const methodTarget = (component: number): CodeTarget => ({
    single,
    keep: declare,
    leaf: (node) => {
      if (node.kind !== 'name') return literal(NaN);
      if (node.name === 't') return time;
      if (node.name === 'h') return step;
      const register = registerOf(node.name);
      if (register === null) return constantCode(CONSTANTS.get(node.name) ?? NaN, single);
      return scalars.get(register) ?? vectors.get(register)?.[component] ?? literal(NaN);
    },
  });

  const placing = new Placing(problem);
  const rate = (block: Block, element: number, at: readonly Code[], when: Code): Code => {
    const target: CodeTarget = {
      single,
      keep: declare,
      leaf: (node) => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
        const meaning = placing.of(node, block, element);
        switch (meaning.kind) {
          case 'time':
            return when;
          case 'constant':
            return constantCode(meaning.value, single);
          case 'component':
            return at[meaning.place] ?? literal(NaN);
          case 'given':
            return declare(emit(meaning.value, target));
        }
      },
    };
    return emit(block.rate, target);
  };

  const run = (instruction: Instruction): void => {
    if (instruction.kind === 'rate') {
      const when = declare(emit(instruction.time, methodTarget(0)));
      const at = vectors.get(instruction.at) ?? present;
      const rates = problem.blocks.flatMap((block) =>
        Array.from({ length: block.size }, (_, element) => declare(rate(block, element, at, when))),
      );
      vectors.set(instruction.into, rates);
      return;
    }
    const value = (component: number): Code => declare(emit(instruction.value, methodTarget(component)));
    if (instruction.shape === 'scalar') scalars.set(instruction.into, value(0));
    else
      vectors.set(
        instruction.into,
        present.map((_, component) => value(component)),
      );
  };

  program.instructions.forEach(run);
  const codeOf = (register: Register): readonly Code[] => {
    const scalar = scalars.get(register);
    return scalar === undefined ? (vectors.get(register) ?? present) : [scalar];
  };
  const next = codeOf(program.next);
  const stages = program.stages.flatMap((stage) => codeOf(stage.register));
  const source = (traced: boolean): string =>
    [
      `function (S, origin, h${single ? '64' : ''}, first, count${traced ? ', OUT' : ''}) {`,
      ...(single ? ['const h = F(h64);'] : []),
      ...before,
      ...present.map(({ text }, j) => `let ${text} = ${single ? `F(S[${j}])` : `S[${j}]`};`),
      'const last = first + count;',
      ...(traced ? ['let at = 0;'] : []),
      'for (let n = first; n < last; n++) {',
      single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
      ...body,
      ...(traced ? stages.map(({ text }) => `OUT[at++] = ${text};`) : []),
      ...next.map(({ text }, j) => `const w${j} = ${text};`),
      ...present.map(({ text }, j) => `${text} = w${j};`),
      '}',
      ...present.map(({ text }, j) => `S[${j}] = ${text};`),
      '}',
    ].join('\n');
  return { advance: source(false), trace: source(true), stageWidth: stages.length };
}

export function constantCode(value: number, single: boolean): Code {
  return literal(single ? Math.fround(value) : value);
}
