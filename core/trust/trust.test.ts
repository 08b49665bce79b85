import { openStudy } from '../src/document/open-study.ts';
import type { StudyDocument } from '../src/document/document.ts';
import { parseProblem } from '../src/problem/parse-problem.ts';
import { findInLibrary } from '../src/method/library/find-method.ts';
import { runStudy } from '../src/study/run-study.ts';
import { isExact, truthOf } from '../src/study/runs/truth.ts';
import type { Study } from '../src/study/runs/study.ts';
import type { StudyResult } from '../src/study/study-result.ts';
import { type Random, randomFrom } from '../src/elementary/random.ts';
import { CLAIMS, falseClaims } from './claims/claims.ts';
import { fixedRun, toDouble } from './fixed-point.ts';
import { ALL_HARDSHIPS, DECIMAL_HARDSHIPS, type Hardship, hardStudy } from './hard-study.ts';
import { misprint } from './printed.ts';
import { coverage, type Covered } from './order-coverage.ts';
import { manufactured, randomStudy, withoutExact } from './random-study.ts';

/** Sentences of a study that do not say what their figures are. */
function misprints({ findings }: StudyResult): readonly string[] {
  return findings.flatMap((finding) => misprint(finding) ?? []);
}

function opened(document: StudyDocument): Study {
  const reading = openStudy(document);
  if (!reading.ok) throw new Error(JSON.stringify([reading.errors, document]));
  return reading.study;
}

test('a run with rounding out of sight is that of exact fractions', () => {
  const problem = parseProblem("y' = -y\ny(0) = 1\n0 <= t <= 1");
  if (!problem.ok) throw new Error('text');
  const run = (title: string, steps: number): number =>
    toDouble(fixedRun(problem.value, findInLibrary(title)!, steps) ?? 0n);
  // (1 - 1/4)^4 and (1 - 1/2 + 1/8)^2, no digit of which is lost in a double
  expect(run('Euler', 4)).toBe(81 / 256);
  expect(run('Heun', 2)).toBe(25 / 64);
  // the first step by Heun, then y2 = y1 + h (-3/2 y1 + 1/2 y0)
  expect(run('Adams-Bashforth 2', 2)).toBe(5 / 8 - (3 / 4) * (5 / 8) + 1 / 4);
  expect(fixedRun(problem.value, findInLibrary('Backward Euler')!, 4)).toBeNull();
});

test('of 120 random smooth studies no finding is false, and the order is in its range in 95 of 100', () => {
  const random = randomFrom(2026);
  const seen: Covered[] = [];
  const wrong: string[] = [];
  for (let i = 0; i < 120; i += 1) {
    const study = opened(randomStudy(random));
    const result = runStudy(study);
    wrong.push(...falseClaims(study, result), ...misprints(result));
    seen.push(...coverage(result));
  }
  expect(wrong).toEqual([]);
  const ranges = seen.filter(({ range }) => range !== null);
  const held = ranges.filter(({ range, truth }) => range!.low <= truth && truth <= range!.high);
  expect(ranges.length).toBeGreaterThan(0.9 * seen.length);
  expect(held.length).toBeGreaterThan(0.95 * ranges.length);
  const widths = ranges.map(({ range }) => range!.high - range!.low).sort((a, b) => a - b);
  expect(widths[widths.length >> 1]).toBeLessThan(0.1);
}, 120_000);

test('of 240 studies that are easily judged wrongly no finding is false, of any kind', () => {
  const wrong: string[] = [];
  const kinds = new Set<string>();
  const judge = (hardships: readonly Hardship[], random: Random): void => {
    for (let i = 0; i < 8 * hardships.length; i += 1) {
      const study = opened(hardStudy(random, hardships[i % hardships.length]).document);
      const result = runStudy(study);
      wrong.push(...falseClaims(study, result), ...misprints(result));
      for (const { kind } of result.findings) kinds.add(kind);
    }
  };
  judge(ALL_HARDSHIPS, randomFrom(2026));
  judge(DECIMAL_HARDSHIPS, randomFrom(30));
  expect(wrong).toEqual([]);
  // they are hard in every way but one: methods that cannot be run on a problem at all
  expect(Object.keys(CLAIMS).filter((kind) => !kinds.has(kind))).toEqual(['refused']);
}, 240_000);

test('a reference is as accurate as it says, of 60 problems whose solutions are known', () => {
  const random = randomFrom(11);
  const off: string[] = [];
  for (let i = 0; i < 60; i += 1) {
    const { text, names } = manufactured(random);
    const [known, bare] = [text, withoutExact(text)].map((own) => {
      const read = parseProblem(own);
      if (!read.ok) throw new Error(own);
      return read.value;
    });
    const places = names.map((_, j) => j).filter((j) => isExact(known!, [j]));
    const [exact, reference] = [known!, bare!].map((problem) => truthOf(problem, places, problem.end));
    for (let k = 1; k <= 16; k += 1) {
      const t = (known!.end * k) / 16;
      const sizes = places.map((place) => Math.abs(exact!.value(place, t)));
      const errors = places.map((place) => Math.abs(exact!.value(place, t) - reference!.value(place, t)));
      // the exact values are rounded, too, with a few operations each
      if (Math.max(...errors) > (reference!.error + 64 * 2 ** -53) * Math.max(1, ...sizes))
        off.push(`${text} at ${t}: ${Math.max(...errors)} where ${reference!.error} is stated`);
    }
  }
  expect(off).toEqual([]);
});

test('a false claim is found', () => {
  const study = opened(hardStudy(randomFrom(5)).document);
  const honest = runStudy(study);
  const method = honest.methods[0]!;
  const made = {
    ...honest,
    findings: [
      {
        kind: 'better than promised',
        rungs: [],
        tone: 'plain',
        figures: {
          value: 9.5,
          low: 9.4,
          high: 9.6,
          promised: 1,
          by: 'proof',
          local: false,
          cause: { kind: 'zero', order: 1 },
        },
        method: 0,
        sentence: 'made up',
      },
      {
        kind: 'large',
        rungs: [],
        tone: 'trouble',
        figures: { sizes: [], error: 1, swing: 2 },
        method: 0,
        sentence: 'made up, too',
      },
    ],
  } as const;
  expect(method.title).not.toBe('');
  expect(falseClaims(study, made)).toEqual([
    expect.stringContaining('better than promised: made up; but finer runs show'),
    'large: made up, too; but 1 is not larger than 2',
  ]);
});

test('a figure that a sentence prints wrongly is found', () => {
  const study = opened(hardStudy(randomFrom(5)).document);
  const { findings } = runStudy(study);
  const printed = findings.filter(({ sentence }) => /\d/.test(sentence));
  expect(printed.length).toBeGreaterThan(0);
  for (const finding of findings) expect(misprint(finding)).toBeNull();
  expect(
    misprint({
      kind: 'two rungs',
      rungs: [],
      tone: 'plain',
      method: 0,
      figures: { order: 2.034 },
      sentence: 'Slope 2.04 from two step sizes only; an order estimate needs three.',
    }),
  ).toContain('2.04 instead of 2.034');
  expect(
    misprint({
      kind: 'leading sign',
      rungs: [],
      tone: 'plain',
      method: 0,
      figures: { axis: { independent: 't', start: 2024, end: 2026 }, t: 2024.5 },
      sentence:
        'The leading term of the error changes sign near t = 2020; for small h the error passes through zero there.',
    }),
  ).toContain('2020 instead of');
});
