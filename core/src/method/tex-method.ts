import { texSymbol } from '../formula/tex-names.ts';
import { type EqualsSign, texOf } from '../formula/tex.ts';
import {
  asCalled,
  type CalledNames,
  type Given,
  givenAsCalled,
  givenBy,
  type Method,
  type MethodStatement,
  nameAsCalled,
  valuesOf,
} from './method.ts';

function givenTex(given: Given, called: CalledNames): string {
  const name = texSymbol(givenAsCalled(given, called));
  return given.kind === 'name' ? name : `${name}_{n+1}`;
}

/** A formula of a method in TeX, and where its statement begins in the text. */
export interface MethodLine {
  readonly tex: string;
  readonly from: number;
}

function statementTex(
  statement: MethodStatement,
  called: CalledNames,
  equals: EqualsSign,
  left: (given: Given) => string,
): readonly string[] {
  if (statement.kind === 'function') {
    const inputs = statement.inputs.map((name) => texSymbol(nameAsCalled(name, called))).join(', ');
    return [`${texSymbol(statement.name)}(${inputs}) ${equals} ${texOf(asCalled(statement.value, called))}`];
  }
  const values = valuesOf(statement);
  const implicit = statement.kind === 'solve' ? '\\quad\\text{(solve)}' : '';
  return givenBy(statement).map((given, i) => {
    const value = values[i];
    return `${left(given)} ${equals} ${value === undefined ? '' : texOf(asCalled(value, called))}${implicit}`;
  });
}

/**
 * A method in TeX, one line a formula, as it was written, with the place of each in the text.
 *
 * @example methodLines(heun)[0] // { tex: 'k_{1} = f(t, y)', from: 0 }
 */
export function methodLines(
  { statements, startWith, called, embedded }: Method,
  equals: EqualsSign = '=',
): readonly MethodLine[] {
  const further = embedded?.lines ?? [];
  const lines = [...statements, ...further].flatMap((statement) => {
    const left = (given: Given): string =>
      statement === further.at(-1) ? `\\hat{${texSymbol(called.value)}}_{n+1}` : givenTex(given, called);
    return statementTex(statement, called, equals, left).map((tex) => ({ tex, from: statement.at.from }));
  });
  if (startWith === null) return lines;
  // only letters, digits and plain signs of a name are set; TeX commands in it are not
  const name = startWith.name.replace(/[^\p{L}\p{N} .,()+-]/gu, ' ');
  return [...lines, { tex: `\\text{start with ${name}}`, from: startWith.at.from }];
}

/**
 * A method in TeX, one line a formula, as it was written.
 *
 * @example methodTex(heun)[0] // 'k_{1} = f(t, y)'
 */
export function methodTex(method: Method, equals: EqualsSign = '='): readonly string[] {
  return methodLines(method, equals).map(({ tex }) => tex);
}
