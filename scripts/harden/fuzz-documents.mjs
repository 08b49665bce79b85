import { random } from './random.mjs';
import { randomFile } from './documents.mjs';

/** Milliseconds that reading a file may take. */
const MAX = 200;

/** Reads one file, opens it where it is a study, and lays its ladder. */
function look(core, text, faults) {
  const from = performance.now();
  const reading = core.readDocumentText(text);
  if (
    !reading.ok &&
    (reading.errors.length === 0 || reading.errors.some((e) => e.place === '' || e.message === ''))
  )
    faults.push({ what: 'errors without a place', text });
  if (reading.ok && reading.document.kind === 'study') {
    const opened = core.openStudy(reading.document);
    if (opened.ok) {
      const { problem, ladder, lastStep } = opened.study;
      core.layLadder(ladder, problem.start, problem.end, lastStep);
      core.estimatedSeconds(opened.study);
    }
  }
  return { isDocument: reading.ok, took: performance.now() - from };
}

/** Reads random files, opens what is a study, and lays its ladder. */
export function fuzzDocuments(core, documents, count, seed, patience = 1) {
  const r = random(seed);
  const faults = [];
  let good = 0;
  let worst = 0;
  for (let i = 0; i < count; i += 1) {
    const text = randomFile(r, documents);
    try {
      const first = look(core, text, faults);
      // where it is long it is looked at again, since something else may have had the machine
      const took = first.took > MAX * patience ? Math.min(first.took, look(core, text, []).took) : first.took;
      if (first.isDocument) good += 1;
      worst = Math.max(worst, took);
      if (took > MAX * patience) faults.push({ what: `took ${took.toFixed(0)} ms`, text });
    } catch (thrown) {
      if (!(thrown instanceof core.Refusal)) faults.push({ what: String(thrown), text });
    }
    if ({}.kind !== undefined || Object.keys(Object.prototype).length > 0)
      return {
        count: i + 1,
        good,
        worst,
        faults: [...faults, { what: 'the prototype of all objects was changed', text }],
      };
  }
  return { count, good, worst, faults };
}
