import { always, type ForeignForm, group } from './form.ts';

/** Stands for the independent variable where an interval does not name it. */
export const UNNAMED = 't';

/** Foreign ways of writing equations, intervals and solutions, the more telling ones first. */
export const PROBLEM_FORMS: readonly ForeignForm[] = [
  // functions of languages
  {
    is: /^\s*(?<at>def\s+\w+\s*\(\s*\w+\s*,\s*(?<name>\w+)[^)]*\)\s*:?\s*return\s+)/,
    say: (found) => `an equation is written ${group(found, 'name')}' = ...`,
    instead: (found) => `${group(found, 'name')}' = `,
  },
  {
    is: /^\s*(?<at>\w+\s*=\s*(?:@\s*\(|lambda\s+|\()\s*\w+\s*,\s*(?<name>\w+)\s*(?:\)\s*(?:=>|->)?|:))/,
    say: (found) => `an equation is written ${group(found, 'name')}' = ...`,
    instead: (found) => `${group(found, 'name')}' = `,
  },
  // derivatives
  {
    is: /^\s*(?<at>d\s*\/\s*d[a-z]\s+(?<name>[A-Za-z]\w*))\s*=/,
    say: null,
    instead: (found) => `${group(found, 'name')}'`,
  },
  {
    is: /(?<=[A-Za-z])"/,
    say: always("a second derivative is written with two primes: y''"),
    instead: always("''"),
  },
  {
    is: /^\s*\(?\s*(?<first>[A-Za-z]\w*)'\s*,\s*(?<second>[A-Za-z]\w*)'\s*\)?\s*=\s*[([]?(?<one>[^,=]+),(?<two>[^,=]+?)[)\]]?\s*$/,
    say: (found) =>
      `write one equation per unknown: ${group(found, 'first')}' = ...; ${group(found, 'second')}' = ...`,
    instead: (found) =>
      `${group(found, 'first')}' = ${group(found, 'one').trim()}; ${group(found, 'second')}' = ${group(found, 'two').trim()}`,
  },
  {
    is: /^\s*(?<at>solve\s+)(?=.*')/,
    say: always('write the equation alone, without solve'),
    instead: always(''),
  },
  {
    is: /'[^=]*=[^=]*?(?<at>\s+(?:with|where|and)\s+)(?=[^=]*=)/,
    say: null,
    instead: always('; '),
  },
  {
    is: /=[^=]*?(?<at>\s*,?\s+(?:for|on)\s+)(?=[^=]*<|[a-z]\s*(?:in\b|∈))/,
    say: null,
    instead: always('; '),
  },
  {
    is: /^\s*\w+\s*=\s*\[[^\]]*\]\s*$/,
    say: always(
      "vectors and matrices are not part of the notation; give every unknown an equation: x' = ...; y' = ...",
    ),
    instead: always(''),
  },
  // initial values and exact solutions
  {
    is: /(?:^|[,;])\s*(?<at>(?:exact(?: solution)?|solution)\s*:\s*(?<name>[A-Za-z]\w*)(?:\(\w+\))?)\s*=/,
    say: null,
    instead: (found) => `${group(found, 'name')}(t)`,
  },
  // intervals
  {
    is: /(?:^|[,;])\s*(?<at>(?<name>[a-hj-z])\s*(?:=|in|∈)\s*(?<low>[^.:=,;]+(?:\.\d+)?)\s*(?:\.\.\.?|:)\s*(?<high>[^:=,;]+?))\s*(?=$|[,;])/,
    say: null,
    instead: (found) => `${group(found, 'low')} <= ${group(found, 'name')} <= ${group(found, 'high')}`,
  },
  {
    // the independent variable gets its name when all lines are read
    is: /(?<=^\s*|[,;]\s*|\S\s+)(?<at>,?\s*\b(?:for|on)\s+(?:the interval\s+)?(?=\[[^[\]]*,[^[\]]*\]\s*(?:$|[,;])))/,
    say: null,
    instead: always(`; ${UNNAMED} in `),
  },
  { is: /(?<=\w)\s*(?<at>∈)/, say: null, instead: always(' in ') },
  {
    is: /^\s*(?<at>(?<name>[a-z])\s+in\s+(?:\((?<low>[^,()[\]]+),(?<high>[^,()[\]]+)[)\]]|\[(?<low2>[^,()[\]]+),(?<high2>[^,()[\]]+)\)))\s*$/,
    say: (found) =>
      `give both ends of the interval: ${group(found, 'name')} in [${(group(found, 'low') || group(found, 'low2')).trim()}, ${(group(found, 'high') || group(found, 'high2')).trim()}]`,
    instead: (found) =>
      `${group(found, 'name')} in [${(group(found, 'low') || group(found, 'low2')).trim()}, ${(group(found, 'high') || group(found, 'high2')).trim()}]`,
  },
  {
    is: /^\s*\[(?<low>[^,[\]]+),(?<high>[^,[\]]+)\]\s*$/,
    say: (found) =>
      `the interval must name its variable: t in [${group(found, 'low').trim()}, ${group(found, 'high').trim()}]`,
    instead: (found) => `t in [${group(found, 'low').trim()}, ${group(found, 'high').trim()}]`,
  },
  {
    is: /^\s*(?<at>(?<high>[^<>=]+?)\s*>=?\s*(?<name>[a-z])\s*>=?\s*(?<low>[^<>=]+?))\s*$/,
    say: (found) =>
      `the interval runs upwards: ${group(found, 'low')} <= ${group(found, 'name')} <= ${group(found, 'high')}`,
    instead: (found) => `${group(found, 'low')} <= ${group(found, 'name')} <= ${group(found, 'high')}`,
  },
  // choices
  {
    is: /\bif\s*\(?(?<test>[^()=;]*[<>][^();]*?)\)?\s*then\s+(?<yes>\S[^;]*?)\s+else\s+(?<no>[^;]+?)\s*(?:end)?\s*$/,
    say: (found) =>
      `a case distinction is written if(${group(found, 'test').trim()}, ${group(found, 'yes')}, ${group(found, 'no')})`,
    instead: (found) => `if(${group(found, 'test').trim()}, ${group(found, 'yes')}, ${group(found, 'no')})`,
  },
  {
    is: /\(?(?<test>[\w.]+\s*[<>]=?\s*[\w.]+)\)?\s*\?\s*(?<yes>[^:?]+?)\s*:\s*(?<no>[^:?]+?)\s*$/,
    say: (found) =>
      `a case distinction is written if(${group(found, 'test')}, ${group(found, 'yes')}, ${group(found, 'no')})`,
    instead: (found) => `if(${group(found, 'test')}, ${group(found, 'yes')}, ${group(found, 'no')})`,
  },
];
