import type { GridMeasure } from './measure.ts';

/** The largest error over the grid. */
export const MAX: GridMeasure = {
  kind: 'grid',
  label: 'maximum error',
  caption: (what) => `maximum ${what}`,
  begin: () => {
    let largest = 0;
    return {
      add: (error) => {
        largest = Number.isNaN(error) ? NaN : Math.max(largest, error);
      },
      value: () => largest,
    };
  },
  sheet: (range) => `MAX(${range})`,
};
