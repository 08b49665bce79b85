/** Steps between two looks at whether a run is still within the numbers. */
export const CHECK_EVERY = 64;
