import { runKey, type StudyDocument } from '@schritt/core/document';
import { Refusal } from '@schritt/core/text';
import { layGrid, type Study, timeAt, truthOfPlaces } from '@schritt/core/study';
import type { Profile, ProfileRequest } from './messages.ts';
import { rowsAt } from './rows.ts';

/** All elements of a family at one grid point, for every method, beside the solution there. */
export function profileOf(
  study: Study,
  document: StudyDocument,
  { gridRequest, n, family }: ProfileRequest,
): Profile {
  const { problem, lastStep } = study;
  const block = problem.blocks.filter(({ unknown }) => unknown.range !== null)[family];
  if (block === undefined) throw new Refusal('missing', 'this problem has no family of unknowns');
  const grid = layGrid(problem.start, problem.end, gridRequest, lastStep);
  const at = Math.min(Math.max(0, n), grid.steps);
  const t = timeAt(grid, at);
  const first = block.unknown.range?.from ?? 0;
  const places = Array.from({ length: block.size }, (_, k) => block.offset + k);
  const truth = truthOfPlaces(problem);
  const known = places.map((place) => truth.curve(place, [t]));
  const [one] = known;
  return {
    name: block.name,
    indices: places.map((_, k) => first + k),
    t,
    methods: study.methods.map((_, method) => {
      try {
        const [row] = rowsAt(study, { method, gridRequest, n: at }, runKey(document, method));
        return row === undefined ? null : row.values.slice(block.offset, block.offset + block.size);
      } catch (thrown) {
        if (thrown instanceof Refusal) return null;
        throw thrown;
      }
    }),
    truth: one == null ? null : { ...one, values: known.map((curve) => curve?.values[0] ?? NaN) },
    steps: grid.steps,
  };
}
