import { texSymbol } from '../formula/tex-names.ts';
import { texOf } from '../formula/tex.ts';
import { type Given, givenBy, type Method, valuesOf } from './method.ts';

function givenTex(given: Given): string {
  return given.kind === 'name' ? texSymbol(given.name) : `${given.variable}_{n+1}`;
}

/** A method in TeX, one line a formula, as it was written. */
export function methodTex(method: Method): readonly string[] {
  const { startWith } = method;
  const lines = method.statements.flatMap((statement) => {
    if (statement.kind === 'function') {
      const inputs = statement.inputs.map((input) => texSymbol(input)).join(', ');
      return [`${texSymbol(statement.name)}(${inputs}) = ${texOf(statement.value)}`];
    }
    const values = valuesOf(statement);
    const implicit = statement.kind === 'solve' ? '\\quad\\text{(solve)}' : '';
    return givenBy(statement).map((given, i) => {
      const value = values[i];
      return `${givenTex(given)} = ${value === undefined ? '' : texOf(value)}${implicit}`;
    });
  });
  if (startWith === null) return lines;
  // only letters, digits and plain signs of a name are set; TeX commands in it are not
  return [...lines, `\\text{start with ${startWith.name.replace(/[^\p{L}\p{N} .,()+-]/gu, ' ')}}`];
}
