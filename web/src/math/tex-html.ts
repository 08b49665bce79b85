import { typesetOptions } from '@schritt/core/text';
import katex from 'katex';
import { LRUCache } from 'lru-cache';

/** Longest formula in characters that is typeset: one of this length takes some 20 ms, and is wider than any page. */
const MAX_LENGTH = 3_000;
/** Typeset formulas that are kept. */
const MAX_KEPT = 2_000;

const kept = new LRUCache<string, string>({ max: MAX_KEPT });

/** Brackets of one size, inside of which a line may break, in place of those that grow and keep a line together. */
const SMALL_BRACKETS: Readonly<Record<string, string>> = { '\\left': '\\bigl', '\\right': '\\bigr' };

/** How the brackets of a formula are set: as high as what they hold, or so that a line may break inside of them. */
export type Brackets = 'growing' | 'small';

/** A formula as HTML with MathML; null for one that is too long to be typeset. */
export function texHtml(tex: string, brackets: Brackets = 'growing'): string | null {
  if (tex.length > MAX_LENGTH) return null;
  const key = `${brackets} ${tex}`;
  const known = kept.get(key);
  if (known !== undefined) return known;
  const options = typesetOptions(false, 'htmlAndMathml');
  const html = katex.renderToString(
    tex,
    brackets === 'growing' ? options : { ...options, macros: { ...SMALL_BRACKETS }, maxExpand: MAX_LENGTH },
  );
  kept.set(key, html);
  return html;
}
