/** Environments, labels and spacing, which say nothing of a formula; the first take a group behind them. */
export const WITH_GROUP: ReadonlySet<string> = new Set(['begin', 'end', 'label', 'tag', 'vspace', 'hspace']);
export const SILENT: ReadonlySet<string> = new Set([
  'nonumber',
  'notag',
  'displaystyle',
  'textstyle',
  'limits',
]);

/** Commands that only change the look of their group. */
export const LOOKS =
  /^(mathrm|mathit|mathbf|mathbb|mathcal|boldsymbol|bm|vec|text|textbf|operatorname|underline)$/;

/** Commands that make another name of their group. */
export const NAMED: ReadonlyMap<string, string> = new Map([
  ['tilde', '_tilde'],
  ['widetilde', '_tilde'],
  ['hat', '_hat'],
  ['widehat', '_hat'],
  ['bar', '_bar'],
  ['overline', '_bar'],
]);

/** Commands that are a sign or a space. */
export const SIGNS: ReadonlyMap<string, string> = new Map([
  ['cdot', '*'],
  ['times', '*'],
  ['le', '<='],
  ['leq', '<='],
  ['ge', '>='],
  ['geq', '>='],
  ['left', ''],
  ['right', ''],
  ['bigl', ''],
  ['bigr', ''],
  [',', ' '],
  [';', ' '],
  [':', ' '],
  ['!', ''],
  [' ', ' '],
  ['quad', ' '],
  ['qquad', ' '],
  ['[', ' '],
  [']', ' '],
  ['(', ' '],
  [')', ' '],
  ['\\', ';'],
]);

/** Functions that TeX writes in front of an input without brackets. */
export const FUNCTIONS: ReadonlyMap<string, string> = new Map([
  ...['sin', 'cos', 'tan', 'sinh', 'cosh', 'tanh', 'exp', 'ln', 'min', 'max'].map(
    (name): [string, string] => [name, name],
  ),
  ['arcsin', 'asin'],
  ['arccos', 'acos'],
  ['arctan', 'atan'],
]);

/** Commands that are a letter. */
export const GREEK: ReadonlySet<string> = new Set(
  'alpha beta gamma delta epsilon varepsilon zeta eta theta vartheta iota kappa lambda mu nu xi rho sigma tau upsilon phi varphi chi psi omega Gamma Delta Theta Lambda Xi Sigma Phi Psi Omega pi'.split(
    ' ',
  ),
);
