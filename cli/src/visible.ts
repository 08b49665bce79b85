/**
 * What a terminal would obey instead of show, and what turns the direction of text around; tabs and the ends of lines
 * are left, those of CSV among them.
 */
const OBEYED = /(?![\n\t]|\r\n)[\p{Cc}\u200e\u200f\u2028-\u202e\u2066-\u2069]/gu;

/**
 * A text that a terminal shows as it is, whatever a title or a file name holds. Written as JSON writes it, so that JSON
 * stays the same document.
 *
 * @example visible('\x1b[2J') // '\\u001b[2J'
 */
export function visible(text: string): string {
  return text.replace(OBEYED, (character) => `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`);
}
