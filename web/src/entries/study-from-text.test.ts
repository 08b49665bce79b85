import { openStudy } from '@schritt/core/document';
import { runStudy } from '@schritt/core/study';
import { parseProblem } from '@schritt/core/notation';
import { studyFromText, type TextReading } from './study-from-text.ts';

const fromText = (text: string): TextReading => studyFromText(text, parseProblem(text));

test('a pasted problem becomes a study that runs, under its first remark', () => {
  const reading = fromText("# The lake runs off\nlevel' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 8");
  if (reading.kind !== 'study') throw new Error(reading.told.join());
  expect(reading.document.title).toBe('The lake runs off');
  const opened = openStudy(reading.document);
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  const { methods } = runStudy(opened.study);
  expect(methods.map(({ title }) => title)).toEqual(['Euler', 'Heun', 'RK4']);
  // (2 - 0.175*8)^2
  expect(methods[2]!.rungs.at(-1)!.values[0]).toBeCloseTo(0.36, 8);
});

test('what is wrong with a pasted text is reported with its places', () => {
  expect(fromText("y' = -y\ny(0) = 1")).toEqual({
    kind: 'errors',
    told: [expect.stringMatching(/^line \d+, column \d+: the interval is missing/)],
  });
  expect(fromText("y' = -z\ny(0) = 1\n0 <= t <= 1")).toMatchObject({
    told: [expect.stringContaining('line 1, column 7: z is not known')],
  });
});
