import * as fc from 'fast-check';
import { cases } from './cases.ts';
import { throughAllPhases } from './phases.ts';

/** Cases that are tried; `npm run harden -- texts` tries many more, with other seeds. */
const CASES = 40;

test('texts of the grammar go through everything that is derived from them without an unexpected exception', async () => {
  let turn = 0;
  const property = fc.asyncProperty(cases, async (one) => {
    const { faults } = await throughAllPhases(one, turn);
    turn += 1;
    expect(faults).toEqual([]);
  });
  await fc.assert(property, { numRuns: CASES, seed: 2026 });
  expect(turn).toBe(CASES);
}, 900_000);
