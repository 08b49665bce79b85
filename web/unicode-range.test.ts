import { parted } from './unicode-range.ts';

test.each([
  ['U+0000-00FF', 'ba', { common: 'U+0061-0062', others: 'U+0000-0060,U+0063-00FF' }],
  ['U+0041, U+2212', 'A−', { common: 'U+0041,U+2212', others: '' }],
  ['u+41-43', 'ACA', { common: 'U+0041,U+0043', others: 'U+0042' }],
  [undefined, '𝑥', { common: 'U+1D465', others: 'U+0000-1D464,U+1D466-10FFFF' }],
  // what the face is not declared for is left to the face that is
  ['U+0030-0039', '5α', { common: 'U+0035', others: 'U+0030-0034,U+0036-0039' }],
])('the range %s is parted by the letters %s', (range, text, parts) => {
  expect(parted(range, text)).toEqual(parts);
});

test('every code point of a face is in one of its two parts, and in one alone', () => {
  const text = "Schritt: h = 0.5, y' = −k·√level";
  const inside = (range: string, point: number): boolean =>
    range.split(',').some((part) => {
      const [from = '', to = from] = part.slice(2).split('-');
      return parseInt(from, 16) <= point && point <= parseInt(to, 16);
    });
  const { common, others } = parted('U+0000-00FF,U+2200-22FF', text);
  for (let point = 0; point < 0x2400; point += 1) {
    const isDeclared = point <= 0xff || (point >= 0x2200 && point <= 0x22ff);
    const isTyped = text.includes(String.fromCodePoint(point));
    expect([point, inside(common, point), inside(others, point)]).toEqual([
      point,
      isDeclared && isTyped,
      isDeclared && !isTyped,
    ]);
  }
});
