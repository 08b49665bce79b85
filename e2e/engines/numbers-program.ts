/** The program of a bare engine: `everyStudy` is a global function of JSON texts. */
import { everyNumber, STUDIES } from './every-number.ts';

/**
 * The reports of demo studies and of the others, as a JSON text.
 *
 * @param documents JSON text of a list of study documents
 */
function everyStudy(documents: string): string {
  return JSON.stringify([...JSON.parse(documents), ...STUDIES].map(everyNumber));
}

Object.assign(globalThis, { everyStudy });
