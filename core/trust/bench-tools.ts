// What the bench of findings and stated orders is made with.
export { openStudy } from '../src/document/open-study.ts';
export { randomFrom } from '../src/elementary/random.ts';
export { runStudy } from '../src/study/run-study.ts';
export { falseClaims } from './claims/claims.ts';
export { ALL_HARDSHIPS, hardStudy } from './hard-study.ts';
export { coverage, printedRanges } from './order-coverage.ts';
export { misprint } from './printed.ts';
export { randomStudy } from './random-study.ts';
