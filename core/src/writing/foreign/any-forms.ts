import { always, type ForeignForm, group } from './form.ts';

const COMMENT = always('a comment begins with #');

/** Foreign ways of writing that are answered alike in problems and methods, the more telling ones first. */
export const ANY_FORMS: readonly ForeignForm[] = [
  // cells and formulas of a spreadsheet
  {
    is: /^\s*=.*$/,
    say: always('a line starts with a name, as in k1 = f(t, y); spreadsheet cells are not allowed here'),
    instead: always(''),
  },
  {
    is: /^.*\$?\b[A-Z]{1,2}\$\d+.*$/,
    say: always('spreadsheet cells are not allowed here; use names, as in y + h*f(t, y)'),
    instead: always(''),
  },
  // comments
  { is: /\/\/.*$|\/\*.*$/, say: COMMENT, instead: (found) => `#${found[0].slice(2)}` },
  {
    is: /(?<=[\s;)\]])%\s*[A-Za-z].*$/,
    say: always('a comment begins with #; a remainder is written mod(a, b)'),
    instead: (found) => `#${found[0].slice(1)}`,
  },
  { is: /(?<=[\s;)\]])!\s*[A-Za-z].*$/, say: COMMENT, instead: (found) => `#${found[0].slice(1)}` },
  // declarations
  {
    is: /^\s*(?<at>(?:(?:const|let|var|double|float|int|auto|static|final)\s+)+)(?=[A-Za-z]\w*\s*[=([_{^'])/,
    say: (found) => `start the line with its name, without ${group(found, 'at').trim()}`,
    instead: always(''),
  },
  // assignments
  {
    is: /^[^=<>(←]*(?:\([^()=<>]*\)[^=<>(←]*)?(?<at>(?<!:):=|<-|←|==)(?!=)/,
    say: (found) => `an equation is written with =, not with ${group(found, 'at')}`,
    instead: always('='),
  },
  // operators
  {
    is: /(?<![\d.])(?<at>\.(?<sign>[*/^]))/,
    say: (found) => `operations are written without a point: ${group(found, 'sign')}`,
    instead: (found) => group(found, 'sign'),
  },
  // functions of languages
  {
    is: /\b(?<at>(?:[Mm]ath|np|numpy|cmath)\.)(?=[a-z])/,
    say: (found) => `write functions without ${group(found, 'at')}`,
    instead: always(''),
  },
  {
    is: /\b(?<at>pow\(\s*(?<base>[\w.]+)\s*,\s*(?<power>[\w.]+)\s*\))/,
    say: (found) => `a power is written ${group(found, 'base')}^${group(found, 'power')}`,
    instead: (found) => `${group(found, 'base')}^${group(found, 'power')}`,
  },
  {
    is: /√\s*(?:\((?<inside>[^()]*)\)|(?<word>\w+))/,
    say: (found) => `a root is written sqrt(${group(found, 'inside') || group(found, 'word')})`,
    instead: (found) => `sqrt(${group(found, 'inside') || group(found, 'word')})`,
  },
  {
    is: /\b(?<at>(?<name>a?(?:sin|cos|tan)h?|exp|ln|sqrt|log10|log2)\s*\^\s*\{?(?<power>[2-9])\}?\s*\((?<inside>[^()]*)\))/,
    say: null,
    instead: (found) => `${group(found, 'name')}(${group(found, 'inside')})^${group(found, 'power')}`,
  },
  {
    is: /\b(?<at>(?<name>sin|cos|tan)\s*\^\s*(?:-1|\{-1\}|\(-1\)))/,
    say: (found) => `the inverse function is written a${group(found, 'name')}`,
    instead: (found) => `a${group(found, 'name')}`,
  },
  // a full stop, as behind a formula in a book
  { is: /(?<=[A-Za-z)\]}][_\d]*)\s*(?<at>\.)\s*$/, say: null, instead: always('') },
];
