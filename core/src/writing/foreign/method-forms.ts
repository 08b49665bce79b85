import { always, type ForeignForm, group } from './form.ts';

const LOOP = always('a method is one step from t to t + h; the loop is automatic, so keep only the step');

/** The same formula with all its indices counted up by `by`. */
function shifted(line: string, by: number): string {
  return line.replace(
    /([[({])\s*n\s*(?:([+-])\s*(\d+))?\s*([\])}])/g,
    (...[, open, sign, digits, close]: readonly string[]) => {
      const index = (sign === '-' ? -1 : 1) * Number(digits ?? 0) + by;
      return `${open}n${index === 0 ? '' : index > 0 ? `+${index}` : index}${close}`;
    },
  );
}

/** Foreign ways of writing steps and loops, the more telling ones first. */
export const METHOD_FORMS: readonly ForeignForm[] = [
  // loops
  {
    is: /^\s*(?<at>for\s*\([^()]*(?:\([^()]*\)[^()]*)*\)\s*\{?)(?=.*=)/,
    say: LOOP,
    instead: always(''),
  },
  { is: /^\s*(?<at>for\s+\w+\s+in\s+[^:]*:)/, say: LOOP, instead: always('') },
  { is: /^\s*(?:for|do|while|repeat)\b(?!\s*=).*$/, say: LOOP, instead: always('') },
  // the end of a loop that was told of, or of none
  {
    is: /^\s*(?:end\s*(?:do|for|while|function|if)?|next(?:\s+[a-z])?|\}|done)\s*;?\s*$/,
    say: null,
    instead: always(''),
  },
  {
    is: /^\s*(?<at>(?:def|function)\b[^:={]*[:{]?\s*return\s+)/,
    say: always('a method is written as its step: y[n+1] = ...'),
    instead: always('y[n+1] = '),
  },
  {
    is: /^\s*(?:def|function)\b(?!\s*=).*$/,
    say: always('a method is written as its step, y[n+1] = ..., without a function around it'),
    instead: always(''),
  },
  {
    is: /^\s*(?<at>return\s+)(?!=)/,
    say: always('the new value is written y[n+1] = ...'),
    instead: always('y[n+1] = '),
  },
  // the range of the index, as behind a formula in a book
  {
    is: /(?<=[)\]}\w.])(?<at>(?:\s|,|;|\(|\\q?quad|for\b|all\b)*\b[i-n]\s*=\s*\d+\s*(?:,\s*\d+\s*)*,?\s*(?:\.\.\.?|:|\\[lc]?dots|…).*)$/,
    say: null,
    instead: always(''),
  },
  // labels
  {
    is: /^\s*(?<at>(?:\(\d+[a-z]?\)|[A-Za-z][A-Za-z ]{2,}:(?!=))\s*)(?=\S)/,
    say: always('put a label after #, at the end of the line'),
    instead: always(''),
  },
  // what the program does by itself
  {
    is: /^\s*(?:t|x)(?:\[n\+1\]|_\{?n\+1\}?)?\s*(?:=\s*(?:t|x)(?:\[n\]|_\{?n\}?)?\s*\+\s*h|\+=\s*h)\s*;?\s*$/,
    say: always('t advances by h automatically; remove this line'),
    instead: always(''),
  },
  {
    is: /^\s*[in]\s*(?:=\s*[in]\s*\+\s*1|\+=\s*1|\+\+)\s*;?\s*$/,
    say: always('steps are counted automatically; remove this line'),
    instead: always(''),
  },
  {
    is: /^\s*h\s*=.*$/,
    say: always('the step size h is chosen in the study; remove this line'),
    instead: always(''),
  },
  // initial values belong to the problem
  {
    is: /^\s*(?:(?:y|w|u|t|x)(?:\[0\]|\(0\)|_\{0\})\s*=.*|[ywutx]_?0\s*=\s*(?![ytwux]\b)(?:[A-Za-z]\w*|[-+]?[\d.]+)\s*[;,.]?)\s*$/,
    say: null,
    instead: always(''),
  },
  // functions that carry their order
  {
    is: /\b(?<at>(?<name>[A-Z])\s*\^\s*(?:\{\s*\(\s*(?<digit>\d)\s*\)\s*\}|\(\s*(?<other>\d)\s*\)))(?=\s*[(=])/,
    say: null,
    instead: (found) => `${group(found, 'name')}${group(found, 'digit') || group(found, 'other')}`,
  },
  // new values
  {
    is: /^\s*(?<at>(?:y|u|w)\s*\+=)/,
    say: always('the new value is written y[n+1] = y + ...'),
    instead: always('y[n+1] = y +'),
  },
  {
    is: /^\s*(?<at>[a-z]\[1\]\s*=.*\[0\].*)$/,
    say: always('write one general step: y[n+1] on the left, y[n] on the right'),
    instead: (found) => group(found, 'at').replaceAll('[1]', '[n+1]').replaceAll('[0]', '[n]'),
  },
  {
    is: /^\s*(?<at>[a-z]_?[[({]\s*n\s*[\])}]\s*=.*)$/,
    say: always('a method computes y[n+1]; increase every index by one'),
    instead: (found) => shifted(group(found, 'at'), 1),
  },
  {
    is: /^\s*(?<at>[a-z]_?[[({]\s*n\s*\+\s*(?<ahead>[2-9])\s*[\])}]\s*=.*)$/,
    say: (found) => `a method computes y[n+1]; decrease every index by ${Number(group(found, 'ahead')) - 1}`,
    instead: (found) => shifted(group(found, 'at'), 1 - Number(group(found, 'ahead'))),
  },
  // indices
  {
    is: /\b(?<at>(?<name>[yt])_?[[({]\s*n\s*\+\s*(?:1\s*\/\s*2|0?\.5|½)\s*[\])}])/,
    say: (found) =>
      group(found, 'name') === 't'
        ? 'the middle of a step is written t + h/2'
        : 'an intermediate value needs a name of its own, such as ymid',
    instead: (found) => (group(found, 'name') === 't' ? '(t + h/2)' : 'ymid'),
  },
  {
    is: /\b(?<name>[A-Za-z])\^(?:\{\s*(?<curly>n[^{}]*)\}|\((?<round>n[+-]\d)\)|(?<bare>n)\b)/,
    say: (found) => `an index goes in square brackets, as in ${group(found, 'name')}[n+1]; ^ is a power`,
    instead: (found) =>
      `${group(found, 'name')}[${group(found, 'curly') || group(found, 'round') || group(found, 'bare')}]`,
  },
  {
    is: /\by'(?:_\{(?<curly>n[^{}]*)\}|\[(?<square>n[^\]]*)\]|_(?<bare>n)\b|\((?<round>n[^()]*)\))/,
    say: always('the slope at a grid point is written f[n], or f(t, y)'),
    instead: (found) =>
      `f[${group(found, 'curly') || group(found, 'square') || group(found, 'round') || group(found, 'bare')}]`,
  },
  {
    is: /\b(?<at>(?<name>[A-Za-z]\w*)\*)(?=\s*(?:=|\)|,|;|$))/,
    say: (found) => `a name consists of letters, digits and _: write ${group(found, 'name')}star`,
    instead: (found) => `${group(found, 'name')}star`,
  },
  {
    is: /(?<![\w.])(?<at>(?<number>\d+\.\d*)f)(?=\s*(?:[*/+\-)]|$))/,
    say: (found) => `a number is written without f: ${group(found, 'number')}`,
    instead: (found) => group(found, 'number'),
  },
  // the right-hand side under another name
  {
    is: /\b(?<at>feval\(\s*@?(?<name>\w+)\s*,)/,
    say: always('the right-hand side is written f(t, y)'),
    instead: (found) => `${group(found, 'name')}(`,
  },
];
