import { texSymbol } from '../formula/tex-names.ts';
import { texOf } from '../formula/tex.ts';
import type { Method } from './method.ts';

/** A method in TeX, one line a statement, as it was written. */
export function methodTex(method: Method): readonly string[] {
  return method.statements.map((statement) => {
    const left = statement.kind === 'let' ? texSymbol(statement.name) : 'y_{n+1}';
    return `${left} = ${texOf(statement.value)}`;
  });
}
