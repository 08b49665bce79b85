import { namesOf } from '../../text/names-of.ts';
import { END } from './end.ts';
import { LOCAL } from './local.ts';
import { MAX } from './max.ts';
import type { ErrorMeasure } from './measure.ts';
import { RMS } from './rms.ts';

/** All error measures by the name that files give them; one is added by its own file and a line here. */
export const ERROR_MEASURES = { end: END, max: MAX, rms: RMS, local: LOCAL } as const satisfies Readonly<
  Record<string, ErrorMeasure>
>;

/** The name of an error measure in a file. */
export type MeasureName = keyof typeof ERROR_MEASURES;

/** The names of all error measures. */
export const MEASURE_NAMES = namesOf(ERROR_MEASURES);
