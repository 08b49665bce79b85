import * as fc from 'fast-check';
import { methodText } from './methods.ts';
import { problemText } from './problems.ts';
import { maybeSpoiled } from './spoiled.ts';

/** Texts that go through everything together, and how their study is set up. */
export interface Case {
  readonly problem: string;
  readonly methods: readonly string[];
  readonly setup: Readonly<Record<string, unknown>>;
}

const ladder = fc.constantFrom<object>(
  { counts: [4, 8, 16] },
  { counts: [1, 2, 3, 7] },
  { steps: [0.5, 0.3, 'pi/8'] },
  { first: 0.5, factor: 2, rungs: 5 },
);

const setup = fc
  .record({
    ladder,
    precision: fc.constantFrom('double', 'double', 'single', { digits: 4 }, { digits: 34 }),
    lastStep: fc.constantFrom('fit', 'fit', 'shorten', 'overrun'),
    at: fc.constantFrom<unknown>('end', 'end', 'max', 'rms', 'local', { t: 0.5 }),
    of: fc.constantFrom('norm', 'norm', 'y', 'x'),
    scale: fc.constantFrom('absolute', 'absolute', 'relative'),
    start: fc.constantFrom<string | null>(null, null, 'Heun', 'exact'),
  })
  .map(({ at, of, scale, start, ...rest }) => ({
    ...rest,
    error: { at, of, scale },
    ...(start === null ? {} : { start }),
  }));

/** A problem and two methods for it. */
export const cases: fc.Arbitrary<Case> = fc.record({
  problem: maybeSpoiled(problemText),
  methods: fc.tuple(maybeSpoiled(methodText), maybeSpoiled(methodText)),
  setup,
});

/** Texts of one case. */
export const TEXTS_PER_CASE = 3;
