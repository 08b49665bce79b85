import { CONSTANTS } from '../formula/functions.ts';
import { type Expression, walk } from '../formula/expression.ts';
import { type Code, type CodeTarget, emit, literal } from '../formula/javascript.ts';
import { Meanings } from '../problem/meaning.ts';
import type { Block, Problem } from '../problem/problem.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import type { Precision } from './precision.ts';
import { type Instruction, PRESENT, type Program, type Register, registerOf } from './program.ts';
import { Placing } from './rate-leaf.ts';
import { constantCode } from './straight-line.ts';

const TIME: Code = { text: 't', atom: true, steady: false };
const STEP: Code = { text: 'h', atom: true, steady: true };

/** Elements of a family whose neighbours all lie inside: from..to-1; the others are written out one by one. */
interface Interior {
  readonly from: number;
  readonly to: number;
}

/**
 * Code for large systems: vectors are typed arrays, combinations are loops over all components, and a
 * family is one loop over its body, with the elements at its edges written out.
 */
export function arrayLoop(problem: Problem, program: Program, precision: Precision): GeneratedLoop {
  const single = precision === 'single';
  const { size } = problem;
  const before: string[] = [];
  const body: string[] = [];
  const steadyNames = new Map<string, string>();
  const arrays = new Set<Register>();
  const scalars = new Map<Register, Code>();
  const meanings = new Meanings(problem);
  const placing = new Placing(problem);
  let names = 0;

  const array = (register: Register): string => {
    if (register === PRESENT) return 'S';
    arrays.add(register);
    return `R${register}`;
  };
  /** Keeps steady pieces before the loop over steps, others among the given lines. */
  const keeper =
    (lines: string[]) =>
    (code: Code): Code => {
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
      lines.push(`const ${text} = ${code.text};`);
      return { text, atom: true, steady: false };
    };

  const methodTarget = (lines: string[]): CodeTarget => ({
    single,
    keep: keeper(lines),
    leaf: (node) => {
      if (node.kind !== 'name') return literal(NaN);
      if (node.name === 't') return TIME;
      if (node.name === 'h') return STEP;
      const register = registerOf(node.name);
      if (register === null) return constantCode(CONSTANTS.get(node.name) ?? NaN, single);
      return scalars.get(register) ?? { text: `${array(register)}[j]`, atom: true, steady: false };
    },
  });

  /** Leaves of a rate at one fixed element. */
  const elementTarget = (block: Block, element: number, at: string, when: Code): CodeTarget => {
    const target: CodeTarget = {
      single,
      keep: keeper(body),
      leaf: (node) => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
        const meaning = placing.of(node, block, element);
        switch (meaning.kind) {
          case 'time':
            return when;
          case 'constant':
            return constantCode(meaning.value, single);
          case 'component':
            return { text: `${at}[${meaning.place}]`, atom: true, steady: false };
          case 'given':
            return target.keep(emit(meaning.value, target));
        }
      },
    };
    return target;
  };

  /** Leaves of the body of a family at the running element i. */
  const bodyTarget = (block: Block, lines: string[], at: string, when: Code): CodeTarget => {
    const target: CodeTarget = {
      single,
      keep: keeper(lines),
      leaf: (node) => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
        const range = block.unknown.range;
        const meaning = meanings.of(node, range?.variable ?? null);
        switch (meaning.kind) {
          case 'time':
            return when;
          case 'constant':
            return constantCode(meaning.value, single);
          case 'position':
            return { text: `(i + ${range?.from ?? 0})`, atom: true, steady: false };
          case 'component':
            return { text: `${at}[${meaning.place}]`, atom: true, steady: false };
          case 'given':
            return target.keep(emit(meaning.value, target));
          case 'neighbour': {
            const first = meaning.block.unknown.range?.from ?? 0;
            const shift = meaning.block.offset + (range?.from ?? 0) + meaning.shift - first;
            return { text: `${at}[i + ${shift}]`.replace('+ -', '- '), atom: true, steady: false };
          }
        }
      },
    };
    return target;
  };

  const interior = (block: Block): Interior => {
    let from = 0;
    let to = block.size;
    const start = block.unknown.range?.from ?? 0;
    walk(block.rate, (node) => {
      if (node.kind !== 'indexed') return;
      const meaning = meanings.of(node, block.unknown.range?.variable ?? null);
      const over = meaning.kind === 'neighbour' ? meaning.block.unknown.range : null;
      if (meaning.kind !== 'neighbour' || over === null) return;
      from = Math.max(from, over.from - start - meaning.shift);
      to = Math.min(to, over.to - start - meaning.shift + 1);
    });
    return { from: Math.min(from, block.size), to: Math.max(from, to) };
  };

  const writeElement = (block: Block, element: number, at: string, into: string, when: Code): void => {
    const { text } = emit(block.rate, elementTarget(block, element, at, when));
    body.push(`${into}[${block.offset + element}] = ${text};`);
  };

  const writeRate = (block: Block, at: string, into: string, when: Code): void => {
    if (block.unknown.range === null) {
      writeElement(block, 0, at, into, when);
      return;
    }
    const { from, to } = interior(block);
    for (let element = 0; element < from; element += 1) writeElement(block, element, at, into, when);
    if (to > from) {
      const lines: string[] = [];
      const { text } = emit(block.rate, bodyTarget(block, lines, at, when));
      body.push(
        `for (let i = ${from}; i < ${to}; i++) {`,
        ...lines,
        `${into}[i + ${block.offset}] = ${text};`,
        '}',
      );
    }
    for (let element = to; element < block.size; element += 1) writeElement(block, element, at, into, when);
  };

  const combine = (value: Expression, into: string): void => {
    const lines: string[] = [];
    const { text } = emit(value, methodTarget(lines));
    body.push(`for (let j = 0; j < ${size}; j++) {`, ...lines, `${into}[j] = ${text};`, '}');
  };

  const run = (instruction: Instruction, isLast: boolean): void => {
    if (instruction.kind === 'rate') {
      const when = keeper(body)(emit(instruction.time, methodTarget(body)));
      for (const block of problem.blocks)
        writeRate(block, array(instruction.at), array(instruction.into), when);
    } else if (instruction.shape === 'scalar')
      scalars.set(instruction.into, keeper(body)(emit(instruction.value, methodTarget(body))));
    // the new value goes straight over the present one: component by component it needs no other
    else
      combine(instruction.value, isLast && instruction.into === program.next ? 'S' : array(instruction.into));
  };

  const last = program.instructions.at(-1);
  const inPlace = last?.kind === 'combine' && last.into === program.next;
  const isStage = program.stages.some(({ register }) => register === program.next || register === PRESENT);
  program.instructions.forEach((instruction) =>
    run(instruction, instruction === last && inPlace && !isStage),
  );
  if (!inPlace || isStage) body.push(`S.set(${array(program.next)});`);

  const { stages } = program;
  const rows = stages.map((stage) =>
    stage.shape === 'scalar'
      ? `OUT[at++] = ${scalars.get(stage.register)?.text ?? 'NaN'};`
      : `OUT.set(${array(stage.register)}, at); at += ${size};`,
  );
  const source = (traced: boolean): string =>
    [
      '(function () {',
      ...[...arrays].map((register) => `const R${register} = new Float64Array(${size});`),
      `return function (S, origin, h${single ? '64' : ''}, first, count${traced ? ', OUT' : ''}) {`,
      ...(single ? ['const h = F(h64);', `for (let j = 0; j < ${size}; j++) S[j] = F(S[j]);`] : []),
      ...before,
      'const last = first + count;',
      ...(traced ? ['let at = 0;'] : []),
      'for (let n = first; n < last; n++) {',
      single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
      ...(traced ? [...body.slice(0, -1), ...traceBefore(body.at(-1) ?? '', rows)] : body),
      '}',
      '}',
      '})()',
    ].join('\n');
  return {
    advance: source(false),
    trace: source(true),
    stageWidth: stages.reduce((sum, stage) => sum + (stage.shape === 'scalar' ? 1 : size), 0),
  };
}

/** Stages are written before the present value is replaced only where a stage is the present value itself. */
function traceBefore(lastLine: string, rows: readonly string[]): readonly string[] {
  return lastLine.startsWith('S.set(') ? [...rows, lastLine] : [lastLine, ...rows];
}
