import { errorCaption } from './error-caption.ts';

test('what the errors are, in words', () => {
  const problem = { end: 6, independent: 'x' };
  expect(errorCaption(problem, { at: 'end', of: 'norm', scale: 'absolute' })).toBe('error at x = 6');
  expect(errorCaption(problem, { at: { t: 0.25 }, of: 'u', scale: 'digits' })).toBe(
    'relative error of u at x = 0.25',
  );
  expect(errorCaption(problem, { at: 'max', of: 'norm', scale: 'relative' })).toBe('maximum relative error');
  expect(errorCaption(problem, { at: 'rms', of: 'u', scale: 'places' })).toBe('RMS error of u');
  expect(errorCaption(problem, { at: 'local', of: 'norm', scale: 'absolute' })).toBe('local error');
});
