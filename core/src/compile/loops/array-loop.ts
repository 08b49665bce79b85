import type { Problem } from '../../problem/problem.ts';
import { CHECK_EVERY } from '../check-interval.ts';
import { printed } from '../nodes/print.ts';
import { Scopes } from '../nodes/scopes.ts';
import { linesOf } from '../nodes/statement.ts';
import type { BinaryPrecision } from '../precision.ts';
import { layOut } from '../../program/layout.ts';
import type { Program } from '../../program/program.ts';
import { NEWTON, stateShape } from '../../program/state.ts';
import type { Register } from '../../program/step-tree.ts';
import { rotationLines } from './array-rotation.ts';
import { addressName } from './address-name.ts';
import { ArrayVectors } from './array-vectors.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import { StepLowering } from './step-lowering.ts';

/** Whether places follow one another, so that they can be copied at once. */
function isContiguous(places: readonly number[]): boolean {
  return places.every((place, j) => place === places[0]! + j);
}

/** Doubles of a page of memory, and how far within it the arrays of an inner loop are from each other. */
const PAGE = 512;
const APART = 56;
/** Doubles in front of all arrays: element 1, with which most inner loops begin, is the first of a line of the cache. */
const FIRST = 7;

/**
 * Doubles from the beginning of an array to that of the next. A processor takes a load for one of what was just stored
 * where their addresses are the same within a page, and waits.
 */
function distanceOf(width: number): number {
  return width < PAGE ? width + (width % 2) : Math.ceil(width / PAGE) * PAGE + APART;
}

/**
 * A loop over steps for large systems: vectors are typed arrays with inner loops over them. Values kept from earlier
 * steps move up by exchanging arrays, not by copying.
 */
export function arrayLoop(problem: Problem, program: Program, precision: BinaryPrecision): GeneratedLoop {
  const single = precision === 'single';
  const layout = layOut(problem, program);
  const { width, places } = layout;
  const shape = stateShape(problem, program, layout);
  const scopes = new Scopes({ pure: false, arithmetic: precision, inlines: false });
  const lowering = new StepLowering(program, scopes);
  const vectors = new ArrayVectors({ problem, program, layout, scopes, lowering });
  const array = (register: Register): string => vectors.array(register);
  for (const register of [...program.present, ...program.kept.map((k) => k.register), ...program.next])
    array(register);
  lowering.step(vectors);

  const rows = program.stages.map(({ register, shape: of }) => {
    const scalar = lowering.scalar(register);
    if (of === 'scalar') return `OUT[at++] = ${scalar === undefined ? 'NaN' : printed(scalar)};`;
    return `OUT.set(${array(register)}, at); at += ${width};`;
  });
  const load = program.present.flatMap((register, i) => {
    const list = places[i]!;
    return isContiguous(list)
      ? [`${array(register)}.set(S.subarray(${list[0]}, ${list[0]! + width}));`]
      : list.map((place, j) => `${array(register)}[${j}] = S[${place}];`);
  });
  const store = program.present.flatMap((register, i) => {
    const list = places[i]!;
    return isContiguous(list)
      ? [`S.set(${array(register)}, ${list[0]});`]
      : list.map((place, j) => `S[${place}] = ${array(register)}[${j}];`);
  });
  const round = program.present.map(
    (register) => `for (let j = 0; j < ${width}; j++) ${array(register)}[j] = F(${array(register)}[j]);`,
  );
  const kept = program.kept.map(({ register }, k) => ({
    name: array(register),
    from: shape.kept + k * width,
  }));
  const iterations = `S[${shape.newton + NEWTON.iterations}]`;
  const rotation = rotationLines(program, array);
  const { arrays, tangentArrays } = vectors;
  const room = (name: string, register: Register, k: number): string =>
    `const ${name}${register} = new Float64Array(BUFFER, ${8 * (k * distance + FIRST)}, ${width});`;
  const tangent = (register: Register): string =>
    `const ${addressName(`T${register}`)} = T${register}.byteOffset;`;
  const distance = distanceOf(width);
  const source = (isTraced: boolean): string =>
    [
      '(function () {',
      ...arrays.map((register, k) => room('A', register, k)),
      ...tangentArrays.map((register, k) => room('T', register, arrays.length + k)),
      ...tangentArrays.map(tangent),
      ...vectors.room,
      `return function (S, origin, h${single ? '64' : ''}, first, count${isTraced ? ', OUT' : ''}) {`,
      ...(single ? ['const h = F(h64);'] : []),
      ...arrays.map((register) => `let R${register} = A${register};`),
      ...arrays.map((register) => `let ${addressName(`R${register}`)} = A${register}.byteOffset;`),
      ...linesOf(scopes.before),
      ...load,
      ...(single ? round : []),
      ...kept.map(({ name, from }) => `${name}.set(S.subarray(${from}, ${from + width}));`),
      ...(lowering.solves > 0 ? [`let iterations = ${iterations};`] : []),
      'const last = first + count;',
      ...(isTraced ? ['let at = 0;'] : []),
      'for (let n = first; n < last; n++) {',
      single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
      ...linesOf(scopes.statements),
      ...(isTraced ? rows : []),
      ...rotation,
      '}',
      ...store,
      ...kept.map(({ name, from }) => `S.set(${name}, ${from});`),
      ...(lowering.solves > 0 ? [`${iterations} = iterations;`] : []),
      '};',
      '})()',
    ].join('\n');
  return {
    advance: source(false),
    trace: () => source(true),
    watch: null,
    rows: null,
    atOnce: CHECK_EVERY,
    stageWidth: program.stages.reduce((sum, stage) => sum + (stage.shape === 'scalar' ? 1 : width), 0),
    parameters: scopes.parameters,
    kernels: { list: vectors.kernels, doubles: FIRST + distance * (arrays.length + tangentArrays.length) },
  };
}
