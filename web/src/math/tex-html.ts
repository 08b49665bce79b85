import { typesetOptions } from '@schritt/core/notation';
import katex from 'katex';
import { LRUCache } from 'lru-cache';

/** Longest formula in characters that is typeset: one of this length takes some 20 ms, and is wider than any page. */
const MAX_LENGTH = 3_000;
/** Typeset formulas that are kept. */
const MAX_KEPT = 2_000;

const kept = new LRUCache<string, string>({ max: MAX_KEPT });

/** A formula as HTML with MathML; null for one that is too long to be typeset. */
export function texHtml(tex: string, block = false): string | null {
  if (tex.length > MAX_LENGTH) return null;
  const key = `${block} ${tex}`;
  const known = kept.get(key);
  if (known !== undefined) return known;
  const html = katex.renderToString(tex, typesetOptions(block, 'htmlAndMathml'));
  kept.set(key, html);
  return html;
}
