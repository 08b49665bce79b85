import * as fc from 'fast-check';
import { cases } from './cases.ts';
import { throughAllPhases } from './phases.ts';

/** Milliseconds after which no further case is begun. */
const TIME = 60_000;

test('texts of the grammar go through everything that is derived from them without an unexpected exception', async () => {
  let turn = 0;
  const property = fc.asyncProperty(cases, async (one) => {
    const { faults } = await throughAllPhases(one, turn);
    turn += 1;
    expect(faults).toEqual([]);
  });
  await fc.assert(property, {
    numRuns: 1_000_000,
    interruptAfterTimeLimit: TIME,
    markInterruptAsFailure: false,
  });
  expect(turn).toBeGreaterThan(50);
}, 240_000);
