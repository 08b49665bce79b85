import { visible } from './visible.ts';

test.each([
  ['plain text, with lines\nand\ttabs', 'plain text, with lines\nand\ttabs'],
  ['Sluice\x1b[2J\x07', 'Sluice\\u001b[2J\\u0007'],
  ['\x9b31m', '\\u009b31m'],
  ['over\rwritten', 'over\\u000dwritten'],
  ['txt.\u202egpj', 'txt.\\u202egpj'],
  ['λ ẏ −1 ×10⁻³ 𝒴', 'λ ẏ −1 ×10⁻³ 𝒴'],
])('%j is shown as %j', (text, shown) => {
  expect(visible(text)).toBe(shown);
});

test('JSON stays the same document', () => {
  const document = { title: 'a\x1b\x7f\x9b\u202e\u2028"\\' };
  const shown = visible(JSON.stringify(document));
  expect(shown).not.toMatch(/[\x7f-\x9f\u2028-\u202e]/);
  expect(JSON.parse(shown)).toEqual(document);
});

test('the ends of lines of CSV are left, a return that goes back over a line is not', () => {
  expect(visible('a,b\r\nc,d\r\n')).toBe('a,b\r\nc,d\r\n');
  expect(visible('safe\rrm')).toBe('safe\\u000drm');
});
