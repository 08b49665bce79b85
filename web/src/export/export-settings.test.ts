import { FIRST, preview, exportName } from './export-settings.ts';

test('a file is called by its title in plain letters, what it is, and its format', () => {
  expect(exportName('Größe: "y" / 2', FIRST)).toBe('Größe-y-2-rungs.csv');
  expect(exportName('../..', { ...FIRST, what: 'program', language: 'f90' })).toBe('study-program.f90');
  expect(exportName('Lake', { ...FIRST, what: 'program', language: 'm' })).toBe('program.m');
  expect(exportName('x'.repeat(300), FIRST)).toBe(`${'x'.repeat(60)}-rungs.csv`);
});

test('a preview shows the first lines and counts the rest', () => {
  expect(preview('a\r\nb\nc\n', 2)).toEqual({ shown: 'a\nb', more: 1 });
  expect(preview('', 5)).toEqual({ shown: '', more: 0 });
  expect(preview('a\nb\nc', 3)).toEqual({ shown: 'a\nb\nc', more: 0 });
  expect(preview('a\nb\nc', 1)).toEqual({ shown: 'a', more: 2 });
});
