import type { LeftOut } from './window.ts';

const WORDS: Readonly<Record<LeftOut['kind'], string>> = {
  struck: 'excluded manually',
  stopped: 'the run stopped',
  'no error': 'no nonzero error',
  'other time': 'its error is taken at another time',
  'same grid': 'same grid as another step size',
  large: 'error larger than the solution',
  floor: 'close to rounding error or to the error of the reference',
  defect: 'the rounding of the coefficients shows',
  coarse: 'not yet in the asymptotic range',
  outside: 'outside the fit range',
};

/**
 * Why a rung does not count for the order, as a sentence.
 *
 * @example result.methods.flatMap(({ rungs }) => rungs.flatMap(({ leftOut }) => (leftOut === null ? [] : [leftOutText(leftOut)])))
 */
export function leftOutText({ kind }: LeftOut): string {
  return WORDS[kind];
}
