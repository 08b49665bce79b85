// The program of a page in which a loop is measured.
import { compileWithStart } from '../core/dist/compile/compile-with-start.js';
import { findInLibrary } from '../core/dist/method/library/find-method.js';
import { parseMethod, parseProblem } from '../core/dist/notation.js';
import { layGrid } from '../core/dist/run/grid.js';
import { integrate } from '../core/dist/run/integrate.js';

let run = null;

Object.assign(globalThis, {
  prepareLoop: ({ problem, method }) => {
    const [own, formula] = [parseProblem(problem), parseMethod(method)];
    if (!own.ok || !formula.ok) throw new Error('a text of the bench cannot be read');
    run = compileWithStart(own.value, formula.value, { find: findInLibrary, instead: null });
  },
  /** Seconds of a run, and what it comes to. Clocks of browsers are coarse: short runs are done again and again. */
  runLoop: (steps) => {
    const { start, end } = run.problem;
    const grid = layGrid(start, end, { steps });
    const until = performance.now() + 30;
    const from = performance.now();
    let { values } = integrate(run, grid);
    let rounds = 1;
    for (; performance.now() < until; rounds += 1) ({ values } = integrate(run, grid));
    const seconds = (performance.now() - from) / 1000;
    return { seconds: seconds / rounds, values: Array.from(values) };
  },
});
