import type { Precision } from '../compile/precision.ts';
import type { MethodInStudy, StudyDocument } from './document.ts';

/** The fields of a file that say how its runs compute. */
export type ArithmeticFields = Pick<StudyDocument, 'precision' | 'rounding' | 'rounded'>;

/**
 * The fields alone that say how runs compute, of a study or of a method.
 *
 * @example arithmeticFields({ precision: 'single' }) // { precision: 'single' }
 */
export function arithmeticFields({ precision, rounding, rounded }: ArithmeticFields): ArithmeticFields {
  return {
    ...(precision === undefined ? {} : { precision }),
    ...(rounding === undefined ? {} : { rounding }),
    ...(rounded === undefined ? {} : { rounded }),
  };
}

/**
 * The arithmetic that the fields of a file name, with what they leave out filled in.
 *
 * @example precisionInFile({ precision: { digits: 4 } }) // { digits: 4, rounding: 'half-even', rounded: 'operations' }
 */
export function precisionInFile({
  precision = 'double',
  rounding = 'half-even',
  rounded = 'operations',
}: ArithmeticFields): Precision {
  return typeof precision === 'string' ? precision : { digits: precision.digits, rounding, rounded };
}

/**
 * The arithmetic of a method of a study: its own, or that of the study.
 *
 * @example precisionOfMethod({ precision: 'single' }, { title: 'Heun', text: '' }) // 'single'
 */
export function precisionOfMethod(study: ArithmeticFields, method: MethodInStudy): Precision {
  return precisionInFile({ ...arithmeticFields(study), ...arithmeticFields(method) });
}
