import type { Sheet } from './static-plot.ts';

function escaped(text: string): string {
  return text.replace(/[&<>"']/gu, (sign) => `&#${sign.codePointAt(0) ?? 0};`);
}

/**
 * A recorded SVG with the size of its sheet, and a title for those who do not see it.
 *
 * @param style a style sheet for its letters; none where they are outlines
 */
export function svgOf(
  recorded: string,
  title: string,
  { width, height, svg }: Omit<Sheet, 'scale'>,
  style = '',
): string {
  const content = recorded.slice(recorded.indexOf('>', recorded.indexOf('<svg')) + 1);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${svg.width}" height="${svg.height}" viewBox="0 0 ${width} ${height}" role="img">`,
    `<title>${escaped(title)}</title>`,
    ...(style === '' ? [] : [`<style>${style}</style>`]),
    content.trim(),
    '',
  ].join('\n');
}
