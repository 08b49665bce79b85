const SUPERSCRIPTS: Readonly<Record<string, string>> = {
  '-': '⁻',
  '0': '⁰',
  '1': '¹',
  '2': '²',
  '3': '³',
  '4': '⁴',
  '5': '⁵',
  '6': '⁶',
  '7': '⁷',
  '8': '⁸',
  '9': '⁹',
};

/** 10 to a whole power in plain characters, for pictures: 10⁻². */
export function powerOfTen(exponent: number): string {
  return `10${Array.from(String(exponent), (digit) => SUPERSCRIPTS[digit] ?? digit).join('')}`;
}
