import type { GridMeasure } from './measure.ts';

/** The root mean square of the errors over the grid. */
export const RMS: GridMeasure = {
  kind: 'grid',
  label: 'RMS error',
  caption: (what) => `RMS ${what}`,
  begin: () => {
    let squares = 0;
    let count = 0;
    return {
      add: (error) => {
        squares += error * error;
        count += 1;
      },
      value: () => Math.sqrt(squares / count),
    };
  },
  sheet: (range) => `SQRT(SUMSQ(${range})/COUNT(${range}))`,
};
