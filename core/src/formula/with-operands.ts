import type { Complaints } from '../text/place.ts';
import type { TokenLine } from '../text/token.ts';
import { withBareFunctions } from './bare-functions.ts';
import { withAbsoluteValues, withSquareGroups } from './grouping-signs.ts';

/** Lines whose formulas have round brackets where they are written `[...]`, `|...|` or, behind a function, not at all. */
export function withOperands(lines: readonly TokenLine[], complaints: Complaints): readonly TokenLine[] {
  return lines.map((line) => {
    const grouped = withAbsoluteValues(withSquareGroups(line.tokens), complaints);
    const tokens = withBareFunctions(grouped, complaints);
    return tokens === line.tokens ? line : { ...line, tokens };
  });
}
