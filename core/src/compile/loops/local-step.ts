import type { Problem } from '../../problem/problem.ts';
import { layOut } from '../../program/layout.ts';
import type { Program } from '../../program/program.ts';
import { NEWTON, stateShape } from '../../program/state.ts';
import type { Register } from '../../program/step-tree.ts';
import { type CodeNode, constantNode, nameNode } from '../nodes/code-node.ts';
import { localName } from '../nodes/print.ts';
import type { Scopes } from '../nodes/scopes.ts';
import { linesOf } from '../nodes/statement.ts';
import { LocalVectors, type LocalWriting } from './local-vectors.ts';
import { StepLowering } from './step-lowering.ts';

/** The code of one step, and the names around it. */
export interface LocalStep {
  /** Before the loop over steps. */
  readonly before: readonly string[];
  readonly lines: readonly string[];
  readonly stages: readonly CodeNode[];
  readonly next: readonly CodeNode[];
  /** Present values. */
  readonly states: readonly string[];
  /** Values kept from earlier steps, the most recent first, with their places in the state. */
  readonly kept: readonly { readonly name: string; readonly place: number; readonly from: string }[];
  readonly newton: { readonly room: number; readonly place: number } | null;
}

/** How the code of a step of local numbers is written. */
export interface LocalStepWriting {
  readonly scopes: Scopes;
  readonly writing: LocalWriting;
  /** Registers whose values are rounded where single operations are not. */
  readonly stored?: ReadonlySet<Register>;
}

/** Straight-line code for one step of a problem of a few components. */
export function writeLocalStep(
  problem: Problem,
  program: Program,
  { scopes, writing, stored }: LocalStepWriting,
): LocalStep {
  const layout = layOut(problem, program);
  const shape = stateShape(problem, program, layout);
  const lowering = new StepLowering(program, scopes, stored);
  const vectors = new LocalVectors({ problem, program, layout, scopes, lowering }, writing);
  const { present, kept, presentRhs } = program;
  const keptName = (k: number, j: number): string => `q${k}_${j}`;
  const components = Array.from({ length: layout.width }, (_, j) => j);
  present.forEach((register, i) =>
    vectors.set(
      register,
      (layout.places[i] ?? []).map((place) => nameNode(`y${place}`)),
    ),
  );
  kept.forEach(({ register }, k) =>
    vectors.set(
      register,
      components.map((j) => nameNode(keptName(k, j))),
    ),
  );
  lowering.step(vectors);
  const made = program.next.map((register) => vectors.pieces(register));
  const next = layout.of.map(({ vector, index }) => made[vector]?.[index] ?? nameNode('NaN'));
  const newest = kept.map(({ of }) =>
    vectors.pieces(of === 'f' ? presentRhs! : present[of === 'v' ? 1 : 0]!),
  );
  return {
    before: linesOf(scopes.before, localName, writing.print),
    lines: linesOf(scopes.statements, localName, writing.print),
    stages: program.stages.flatMap(({ register }) => vectors.pieces(register)),
    next,
    states: next.map((_, j) => `y${j}`),
    kept: kept.flatMap(({ back }, k) =>
      components.map((j) => {
        const own = newest[k]?.[j];
        return {
          name: keptName(k, j),
          place: shape.kept + k * layout.width + j,
          from: back > 1 ? keptName(k - 1, j) : writing.print(own ?? constantNode(NaN)),
        };
      }),
    ),
    newton:
      lowering.solves === 0 ? null : { room: vectors.solveRoom, place: shape.newton + NEWTON.iterations },
  };
}
