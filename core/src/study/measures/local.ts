import type { LocalMeasure } from './measure.ts';

/** The error of one step from exact values. */
export const LOCAL: LocalMeasure = {
  kind: 'local',
  label: 'local error',
  caption: (what) => `local ${what}`,
};
