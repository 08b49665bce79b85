import type { Expression } from '../../formula/expression.ts';
import { plainText } from '../../formula/plain-text.ts';
import type { Block, Problem } from '../../problem/problem.ts';
import { lineStarts, placeOf } from '../../text/place.ts';
import { primed } from '../../text/primes.ts';
import type { Trial } from '../trial-run.ts';
import type { Change } from './change.ts';
import { exchanged, integerQuotients, type NodeChange, nodeChanges, nodesIn } from './node-changes.ts';

/** Whether a block has an equation of the text, and is not the derivative of the block before it. */
function hasEquation({ unknown, derivative }: Block): boolean {
  return derivative === unknown.order - 1;
}

function withNodes(problem: Problem, place: number, changes: readonly NodeChange[]): Problem | null {
  const block = problem.blocks[place];
  const [rhs] = (block && exchanged([block.rhs], changes)) ?? [];
  if (block === undefined || rhs === undefined) return null;
  return { ...problem, blocks: problem.blocks.with(place, { ...block, rhs }) };
}

function withProblem(trial: Trial, change: (problem: Problem) => Problem | null): Trial | null {
  const problem = change(trial.problem);
  return problem && { ...trial, problem };
}

/** Another component or parameter in the place of one. */
function otherNames(rhs: Expression, problem: Problem): readonly NodeChange[] {
  const single = problem.unknowns.filter(({ range }) => range === null).map(({ name }) => name);
  const names = [...single, ...problem.parameters.map(({ name }) => name)];
  return nodesIn(rhs).flatMap(({ node }): readonly NodeChange[] => {
    if (node.kind !== 'name' || node.primes > 0 || !names.includes(node.name)) return [];
    return names
      .filter((other) => other !== node.name)
      .map((other) => ({
        kind: 'name',
        node,
        other: { ...node, name: other },
        says: `${other} is written for ${node.name}`,
        isFrequent: false,
      }));
  });
}

/** Every mistake in the right-hand sides of a problem. */
export function problemChanges(problem: Problem): readonly Change[] {
  const starts = lineStarts(problem.text);
  const seen = new Set<string>();
  const made = problem.blocks.flatMap((block, place): readonly Change[] => {
    if (!hasEquation(block)) return [];
    const { unknown, rhs } = block;
    const { line } = placeOf(starts, unknown.written.left.at.from);
    const index = unknown.range === null ? '' : `[${unknown.range.variable}]`;
    const left = primed(`${unknown.name}${index}`, unknown.order);
    const textOf = (value: Expression): string => `${left} = ${plainText(value)}`;
    const changes = [...nodesIn(rhs).flatMap(nodeChanges), ...otherNames(rhs, problem)];
    return changes.flatMap((change): readonly Change[] => {
      const changed = withNodes(problem, place, [change]);
      const given = changed === null ? '' : textOf(changed.blocks[place]?.rhs ?? rhs);
      if (given === '' || given === textOf(rhs) || seen.has(given)) return [];
      seen.add(given);
      return [
        {
          kind: change.kind,
          says: change.says,
          line: { of: 'problem', line, given, right: textOf(rhs) },
          isFrequent: change.isFrequent,
          place: `problem ${place} ${change.node.at.from}-${change.node.at.to}`,
          shift: 0,
          // of the right problem it is there already
          apply: (trial) =>
            withProblem(trial, (own) => (own === problem ? changed : withNodes(own, place, [change]))),
        },
      ];
    });
  });
  const quotients = problem.blocks.map((block) => (hasEquation(block) ? integerQuotients(block.rhs) : []));
  if (quotients.every((list) => list.length === 0)) return made;
  return [
    ...made,
    {
      kind: 'integer division',
      says: 'Quotients of integers in the equation are taken without their remainders',
      line: null,
      isFrequent: true,
      place: 'integer division of the problem',
      shift: 0,
      apply: (trial) =>
        withProblem(trial, (own) =>
          quotients.reduce<Problem | null>(
            (now, list, place) => (now === null || list.length === 0 ? now : withNodes(now, place, list)),
            own,
          ),
        ),
    },
  ];
}
