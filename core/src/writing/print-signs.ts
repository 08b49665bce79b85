/** Signs of print and what they say. */
export const CHARACTERS: ReadonlyMap<string, string> = new Map([
  ['²', '^2'],
  ['³', '^3'],
  ['½', '0.5'],
  ['¼', '0.25'],
  ['¾', '0.75'],
  ['$', ' '],
]);

/** What an accent on a letter says: a derivative, or another name. */
const ACCENTS: ReadonlyMap<string, string> = new Map([
  ['\u0307', "'"],
  ['\u0308', "''"],
  ['\u0302', '_hat'],
  ['\u0303', '_tilde'],
  ['\u0304', '_bar'],
]);

/** Small signs below the line. */
export const BELOW_LINE: ReadonlyMap<string, string> = new Map([
  ...Array.from('₀₁₂₃₄₅₆₇₈₉', (sign, i): [string, string] => [sign, `${i}`]),
  ['₊', '+'],
  ['₋', '-'],
  ['ₙ', 'n'],
  ['ₖ', 'k'],
  ['ᵢ', 'i'],
  ['ⱼ', 'j'],
  ['ₘ', 'm'],
]);

/** A letter with an accent as the letter and what the accent says; undefined for any other character. */
export function accented(character: string): string | undefined {
  const said = ACCENTS.get(character);
  if (said !== undefined) return said;
  const [letter, accent, ...more] = character.normalize('NFD');
  const meaning = accent === undefined ? undefined : ACCENTS.get(accent);
  return letter === undefined || meaning === undefined || more.length > 0 ? undefined : letter + meaning;
}
