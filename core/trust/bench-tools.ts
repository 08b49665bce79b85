// What the bench of stated orders is made with.
export { openStudy } from '../src/document/open-study.ts';
export { randomFrom } from '../src/elementary/random.ts';
export { runStudy } from '../src/study/run-study.ts';
export { coverage } from './order-coverage.ts';
export { randomStudy } from './random-study.ts';
