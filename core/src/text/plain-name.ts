/**
 * A title as a part of the name of a file: letters and digits, with hyphens for all else.
 *
 * @param instead what a title is called that has none of them
 * @param most characters at most, 60 where nothing else is said
 * @example plainName('Two lakes', 'study') // 'Two-lakes'
 */
export function plainName(title: string, instead: string, most = 60): string {
  const plain = title
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-/, '')
    .slice(0, most)
    .replace(/-$/, '');
  return plain === '' ? instead : plain;
}
