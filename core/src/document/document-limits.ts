/** Most methods of a study. */
export const MAX_METHODS = 24;
/** Longest note. */
export const LONGEST_NOTE = 2_000;
/** Longest title. */
export const LONGEST_TITLE = 200;
