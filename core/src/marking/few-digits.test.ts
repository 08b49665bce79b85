import { execFileSync } from 'node:child_process';
import type { StudyDocument } from '../document/document.ts';
import { studyOrRefusal } from '../document/open-study.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { layGrid } from '../run/grid.ts';
import { markColumn, type Marking } from './mark-column.ts';

const FROST = "s' = 0.5/s\ns(0) = 1\n0 <= t <= 6";

/** Heun's method as a student does it with a calculator, by the decimal module: one row for each step. */
function byHand(digits: number, rounding: string, ahead = 'h*k1'): string {
  return execFileSync(
    'python3',
    [
      '-c',
      `
from decimal import *
setcontext(Context(prec=${digits}, rounding=${rounding}))
D = Decimal
def f(y):
    return D("0.5")/y
h, y = D(6)/D(12), D(1)
print("0;1")
for n in range(12):
    k1 = f(y)
    k2 = f(y + ${ahead})
    y = y + h/D(2)*(k1 + k2)
    print(f"{n + 1};{y}")
`,
    ],
    { encoding: 'utf8' },
  );
}

function marked(given: string, more: Partial<StudyDocument>): Marking {
  const study = studyOrRefusal({
    schritt: 1,
    kind: 'study',
    title: 'Frost line',
    problem: { title: 'Frost line', text: FROST },
    methods: [{ title: 'Heun', text: findInLibrary('Heun')!.text }],
    ladder: { counts: [12] },
    ...more,
  });
  return markColumn({ study, method: 0, grid: layGrid(0, 6, { steps: 12 }) }, given);
}

const FOUR: Partial<StudyDocument> = { precision: { digits: 4 }, rounding: 'chop' };

test('rows by a calculator that chops to four digits are right in that arithmetic, and in no other', () => {
  const given = byHand(4, 'ROUND_DOWN');
  const own = marked(given, FOUR);
  expect([own.firstWrong, own.mistakes]).toEqual([null, []]);
  expect(marked(given, {}).firstWrong).not.toBeNull();
});

test('a mistake is found in the arithmetic of the study', () => {
  const given = byHand(4, 'ROUND_DOWN', 'k1');
  const found = marked(given, FOUR);
  expect(found.mistakes[0]).toMatchObject({ kinds: ['missing h'], explains: 13 });
  // the same numbers are not those of that mistake in double precision
  expect(marked(given, {}).mistakes).toEqual([]);
});
