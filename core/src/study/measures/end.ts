import { stepSizeText } from '../../text/number-text.ts';
import type { EndMeasure } from './measure.ts';

/** The global error at the end of the interval. */
export const END: EndMeasure = {
  kind: 'end',
  label: 'global error at the end',
  caption: (what, { independent, end }) => `${what} at ${independent} = ${stepSizeText(end)}`,
};
