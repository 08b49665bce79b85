import { typesetOptions } from '@schritt/core/text';

/** Sets formulas of pages as MathML; what does so is large, and wanted by few tasks. */
export async function mathTypeset(): Promise<(tex: string, wide: boolean) => string> {
  const { default: katex } = await import('katex');
  return (tex, wide) => katex.renderToString(tex, typesetOptions(wide, 'mathml'));
}
