import { oneLine } from './cell-text.ts';

const SPECIAL: Readonly<Record<string, string>> = {
  '\\': '\\textbackslash{}',
  '{': '\\{',
  '}': '\\}',
  $: '\\$',
  '&': '\\&',
  '#': '\\#',
  '^': '\\textasciicircum{}',
  _: '\\_',
  '~': '\\textasciitilde{}',
  '%': '\\%',
  '<': '\\textless{}',
  '>': '\\textgreater{}',
  '|': '\\textbar{}',
  '"': '\\textquotedbl{}',
  "'": '\\textquotesingle{}',
  '`': '\\textasciigrave{}',
  '−': '$-$',
  '×': '$\\times$',
  '·': '$\\cdot$',
  '→': '$\\to$',
  '±': '$\\pm$',
  '≤': '$\\le$',
  '≥': '$\\ge$',
  '–': '--',
  '—': '---',
  '’': "'",
  '“': '``',
  '”': "''",
  '…': '\\dots{}',
};

const LOWER =
  'alpha beta gamma delta epsilon zeta eta theta iota kappa lambda mu nu xi omicron pi rho varsigma sigma tau upsilon phi chi psi omega';
const UPPER = 'A B Gamma Delta E Z H Theta I K Lambda M N Xi O Pi P . Sigma T Upsilon Phi X Psi Omega';

/** Greek letters by their code: those without a command of their own look like Latin ones. */
function greek(code: number): string | null {
  const [lower, upper] = [LOWER.split(' ')[code - 0x3b1], UPPER.split(' ')[code - 0x391]];
  if (lower !== undefined) return lower === 'omicron' ? 'o' : `$\\${lower}$`;
  if (upper === undefined || upper === '.') return null;
  return upper.length === 1 ? upper : `$\\${upper}$`;
}

/** Latin letters that the encodings of pdflatex have. */
const LATIN = /^[\u0020-\u007e\u00a1-\u00ff\u0100-\u017e]$/u;

/**
 * A text that a person typed, for a paragraph of LaTeX: every sign represents itself, and none is a command.
 *
 * @example texText('50 % of k_1') // '50 \\% of k\\_1'
 */
export function texText(text: string): string {
  return Array.from(oneLine(text), (sign) => {
    const known = Object.hasOwn(SPECIAL, sign) ? SPECIAL[sign] : undefined;
    if (known !== undefined) return known;
    const letter = greek(sign.codePointAt(0) ?? 0);
    if (letter !== null) return letter;
    return LATIN.test(sign) ? sign : '?';
  }).join('');
}

/** What a document has besides: options of its class, and lines of its head. */
export interface TexHead {
  readonly options?: string;
  readonly head?: readonly string[];
}

/**
 * A whole document about a body, that compiles unchanged.
 *
 * @example texDocument(['Text.']).includes('begin{document}') // true
 */
export function texDocument(body: readonly string[], { options, head = [] }: TexHead = {}): string {
  return [
    `\\documentclass${options === undefined ? '' : `[${options}]`}{article}`,
    '\\usepackage[utf8]{inputenc}',
    '\\usepackage[T1]{fontenc}',
    '\\usepackage{textcomp}',
    '\\usepackage{amsmath}',
    '\\usepackage{booktabs}',
    '\\usepackage[margin=2cm]{geometry}',
    ...head,
    '\\begin{document}',
    ...body,
    '\\end{document}',
    '',
  ].join('\n');
}
