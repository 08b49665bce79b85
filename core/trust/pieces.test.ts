import { openStudy } from '../src/document/open-study.ts';
import type { StudyDocument } from '../src/document/document.ts';
import { randomFrom } from '../src/elementary/random.ts';
import { finish } from '../src/study/run-study.ts';
import { estimatedSeconds, piecesOf } from '../src/study/runs/estimate.ts';
import type { MethodRun } from '../src/study/runs/run-method.ts';
import { completeMethod, methodSigns, type PieceRun, pieceSigns } from '../src/study/runs/run-methods.ts';
import type { Study } from '../src/study/runs/study.ts';
import { ALL_HARDSHIPS, hardStudy } from './hard-study.ts';
import { randomStudy } from './random-study.ts';

function opened(document: StudyDocument): Study {
  const reading = openStudy(document);
  if (!reading.ok) throw new Error(JSON.stringify([reading.errors, document]));
  return reading.study;
}

/** Runs as they are stored, but for the time that they took. */
function stored({ title, rungs, refused }: MethodRun): string {
  return JSON.stringify({
    title,
    refused,
    rungs: rungs.map((rung) => ({ ...rung, cost: { ...rung.cost, seconds: 0 } })),
  });
}

/** What a piece becomes on its way to where its method is completed. */
function sent(piece: PieceRun): PieceRun {
  return JSON.parse(JSON.stringify(piece));
}

function inPieces(study: Study, method: number, least: number): MethodRun {
  const pieces = piecesOf(study, least)
    .filter((piece) => piece.method === method)
    // each with a study of its own, and the last one first
    .map((piece) => sent(finish(pieceSigns({ ...study }, piece))))
    .reverse();
  return finish(completeMethod({ ...study }, method, pieces));
}

test('studies of 28 kinds that are run in pieces, one of them after another, have the same bits as whole ones', () => {
  const random = randomFrom(29);
  const different: string[] = [];
  for (let i = 0; i < 2 * ALL_HARDSHIPS.length; i += 1) {
    const { document } = hardStudy(random, ALL_HARDSHIPS[i % ALL_HARDSHIPS.length]);
    const study = opened(i % 2 === 0 ? document : randomStudy(random));
    for (const method of study.methods.keys()) {
      const whole = stored(finish(methodSigns(study, method)));
      for (const least of [0, 1e-4])
        if (stored(inPieces(study, method, least)) !== whole) different.push(JSON.stringify(document));
    }
  }
  expect(different).toEqual([]);
});

const SLUICE: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: {
    title: 'Sluice',
    text: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 8\nlevel(t) = (2 - 0.35*t/2)^2",
  },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*(k1 + k2)/2' },
  ],
  ladder: { counts: [10, 20, 40, 10_000_000, 20_000_000] },
};

test('short runs are put together, and long ones are pieces of their own; together they take as long as the study', () => {
  const study = opened(SLUICE);
  const pieces = piecesOf(study, 0.05);
  expect(pieces.map(({ method, rungs }) => [method, rungs])).toEqual([
    [0, [0, 1, 2, 3]],
    [0, [4]],
    [1, [0, 1, 2, 3]],
    [1, [4]],
  ]);
  const sum = pieces.reduce((all, { seconds }) => all + seconds, 0);
  // every piece compiles its method anew
  expect(sum / estimatedSeconds(study)).toBeGreaterThanOrEqual(1);
  expect(sum / estimatedSeconds(study)).toBeLessThan(1.01);
  // a reference that every piece may have to make is not made for a moment's work
  const without = {
    ...SLUICE,
    problem: { ...SLUICE.problem, text: SLUICE.problem.text.split('\n', 3).join('\n') },
  };
  const hard = opened({ ...without, ladder: { counts: Array.from({ length: 12 }, (_, i) => 10 + i) } });
  expect(piecesOf(hard, 0).length).toBe(2);
});

test('one step size that cannot be run refuses its method as it does in one piece', () => {
  const study = opened(SLUICE);
  const refused: PieceRun = { kind: 'refused', why: 'it cannot be run' };
  const run = finish(completeMethod(study, 0, [refused, { kind: 'runs', rungs: [] }]));
  expect(run).toMatchObject({ title: 'Euler', refused: 'it cannot be run' });
  expect(run.rungs).toHaveLength(5);
});
