import { plainName } from './plain-name.ts';

test.each([
  ['Sway of the gondola, slow', 'Sway-of-the-gondola-slow'],
  ['Größe: "y" / 2', 'Größe-y-2'],
  // a mark behind its letter belongs to it
  ['Gro\u0308ße', 'Größe'],
  ['../..', 'study'],
  // a cut leaves no hyphen at the end
  [`${'x'.repeat(59)} y`, 'x'.repeat(59)],
])('%j as a part of the name of a file is %s', (title, name) => {
  expect(plainName(title, 'study')).toBe(name);
});
