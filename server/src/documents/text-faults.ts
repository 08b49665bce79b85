import type { TextErrors } from '@schritt/core/document';
import type { ApiFault } from '../errors/api-error.ts';

/** Errors of the texts of a study as faults with their places. */
export function textFaults(errors: readonly TextErrors[]): readonly ApiFault[] {
  return errors.flatMap(({ title, errors: own }) =>
    own.map((e) => ({ place: `${title}, line ${e.line}, column ${e.column}`, message: e.message })),
  );
}
