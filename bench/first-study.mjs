// Prints the milliseconds of the first study of this process: the one that `STUDIES` has in its middle.
import { LIBRARY } from '../core/dist/notation.js';
import { openStudy } from '../core/dist/document.js';
import { runStudy } from '../core/dist/study.js';
import { STUDIES } from './cases.mjs';

const { name, problem, methods, counts } = STUDIES[1];
const document = {
  schritt: 1,
  kind: 'study',
  title: name,
  problem: { title: name, text: problem('0.35') },
  methods: methods.map((title) => LIBRARY.find((method) => method.title === title)),
  ladder: { counts },
};
const from = performance.now();
const opened = openStudy(document);
if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
runStudy(opened.study);
console.log(performance.now() - from);
