/**
 * What is computed in every engine: the demo studies, and every method of the library in every arithmetic.
 *
 * One file without imports of any engine or platform is made of this; it runs in the page of a browser, in Node and
 * in a bare shell of an engine alike.
 */
import { openStudy, type StudyDocument, studyReport } from '@schritt/core/document';
import { LIBRARY } from '@schritt/core/notation';
import { runStudy } from '@schritt/core/study';

/** A study and the JSON text of all that it gives, whose numbers have all their digits. */
export type StudyText = readonly [title: string, report: string];

const FUNCTIONS = `# The level of the gorge, by all that a right-hand side may hold
level' = -0.35*sqrt(level) + 0.1*sin(40*t)*exp(-t/3) + 0.02*ln(1 + t)*cos(level)
drift' = tanh(level - drift) + 0.05*atan(t) - 0.01*(t + 1)^1.3 + 0.1*tan(t/20)
wind' = if(sin(3*t) > 0, cosh(t/9), -sinh(t/9)) - wind*abs(drift)
level(0) = 4
drift(0) = 0.1
wind(0) = 0
0 <= t <= 6`;

const SLUICE = `# A lake that empties through a sluice, and what flows out
level' = -0.35*sqrt(level) + 0.1*sin(t)
out' = 0.35*sqrt(level)*exp(-t/9)
level(0) = 4
out(0) = 0
0 <= t <= 4`;

const GONDOLA = `# A gondola at its rope
x'' = -9.81/12*sin(x) + 0.1*cos(2*t)
x(0) = 0.3
x'(0) = 0
0 <= t <= 9`;

/** So many components that loops are written for WebAssembly. */
const LAYERS = `# Layers of snow that settle
u[i]' = 0.3*(u[i-1] - 2*u[i] + u[i+1]) + 0.1*u[i]*(1 - u[i]) for i = 1..n
n = 300
u[0] = 0
u[n+1] = 0
u[i](0) = sin(pi*i/(n+1)) for i = 1..n
0 <= t <= 2`;

const isForMotion = ({ text }: { readonly text: string }): boolean => text.includes('v[n+1]');

const first = LIBRARY.filter((method) => !isForMotion(method));
const second = LIBRARY.filter(isForMotion);
const explicit = ['Euler', 'Heun', 'RK4', 'RK8', 'SSP 3', 'Adams-Bashforth 4'];

function studyOf(
  title: string,
  text: string,
  methods: readonly { readonly title: string; readonly text: string }[],
  counts: readonly number[],
  rest: Partial<StudyDocument> = {},
): StudyDocument {
  return {
    ...{ schritt: 1, kind: 'study', title, problem: { title, text }, ladder: { counts } },
    methods: methods.map((method) => ({ title: method.title, text: method.text })),
    ...rest,
  };
}

/** Studies beyond those of the demo data. */
export const STUDIES: readonly StudyDocument[] = [
  studyOf('all methods', FUNCTIONS, first, [60, 120, 240, 480]),
  studyOf('all methods in single precision', FUNCTIONS, first, [60, 120, 240], { precision: 'single' }),
  studyOf('all methods with 20 digits', SLUICE, first, [16], { precision: { digits: 20 } }),
  studyOf('methods for motion', GONDOLA, LIBRARY, [90, 180, 360]),
  studyOf('methods for motion in single precision', GONDOLA, second, [90, 180], { precision: 'single' }),
  studyOf(
    'a family',
    LAYERS,
    LIBRARY.filter(({ title }) => explicit.includes(title)),
    [16, 32],
  ),
  studyOf('a long run', FUNCTIONS, first.slice(0, 5), [2 ** 16]),
];

/**
 * All numbers and sentences of a study.
 *
 * @throws Error with the errors of the texts where the document is no study
 */
export function everyNumber(document: StudyDocument): StudyText {
  const opened = openStudy(document);
  if (!opened.ok) throw new Error(`${document.title}: ${JSON.stringify(opened.errors)}`);
  const report = studyReport(document.title, opened.study.problem, runStudy(opened.study));
  // the time that a run took is the machine's
  return [
    document.title,
    JSON.stringify(report, (key, value: unknown) => (key === 'seconds' ? null : value)),
  ];
}
