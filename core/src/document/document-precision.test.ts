import type { StudyDocument } from './document.ts';
import { precisionInFile, precisionOfMethod } from './document-precision.ts';
import { readDocument } from './read-document.ts';
import { runKey } from './run-key.ts';

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "y' = -y\ny(0) = 1\n0 <= t <= 1" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [4] },
};

test.each([
  [{ precision: 'double' }, []],
  [{ precision: { digits: 2 }, rounding: 'chop', rounded: 'stored' }, []],
  [{ precision: { digits: 200 } }, []],
  [
    { precision: 'quad' },
    ['precision must be one of "double", "single", or an object with a number of digits'],
  ],
  [
    { precision: { digits: 1 } },
    ['precision must be one of "double", "single", or { "digits": ... } with an integer from 2 to 200'],
  ],
  [
    { precision: { digits: 34, base: 10 } },
    ['precision must be one of "double", "single", or { "digits": ... } with an integer from 2 to 200'],
  ],
  [{ rounding: 'up' }, ['rounding must be one of "half-even", "half-up", "chop"']],
  [{ rounded: 'all' }, ['rounded must be one of "operations", "stored"']],
] as const)('the fields %j of a study are read, or refused with what to write', (fields, messages) => {
  const said = (value: unknown): readonly string[] => {
    const reading = readDocument(value);
    return reading.ok ? [] : reading.errors.map(({ place, message }) => `${place} ${message}`);
  };
  expect(said({ ...STUDY, ...fields })).toEqual(messages);
  const ofMethod = { ...STUDY, methods: [{ ...STUDY.methods[0], ...fields }] };
  expect(said(ofMethod)).toEqual(messages.map((message) => `methods[0].${message}`));
});

test('a method takes from the study what it does not say itself', () => {
  const study = { precision: { digits: 6 }, rounding: 'chop' } as const;
  const method = { title: 'Euler', text: '' };
  expect(precisionOfMethod(study, method)).toEqual({ digits: 6, rounding: 'chop', rounded: 'operations' });
  expect(precisionOfMethod(study, { ...method, precision: { digits: 34 }, rounding: 'half-up' })).toEqual({
    digits: 34,
    rounding: 'half-up',
    rounded: 'operations',
  });
  expect(precisionOfMethod(study, { ...method, precision: 'double' })).toBe('double');
  expect(precisionInFile({})).toBe('double');
});

test('runs in another arithmetic are other runs', () => {
  const studies: readonly StudyDocument[] = [
    STUDY,
    { ...STUDY, precision: { digits: 4 } },
    { ...STUDY, precision: { digits: 4 }, rounding: 'chop' },
    { ...STUDY, precision: { digits: 4 }, rounded: 'stored' },
    { ...STUDY, methods: [{ ...STUDY.methods[0]!, precision: { digits: 5 } }] },
  ];
  const keys = studies.map((study) => runKey(study, 0));
  expect(new Set(keys).size).toBe(keys.length);
  const own = { ...STUDY, methods: [{ ...STUDY.methods[0]!, precision: { digits: 4 } }] };
  expect(runKey(own, 0)).toBe(keys[1]);
});
