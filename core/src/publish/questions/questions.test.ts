import { XMLParser } from 'fast-xml-parser';
import { SyntaxValidator } from 'fast-xml-validator';
import katex from 'katex';
import { openStudy } from '../../document/open-study.ts';
import { Refusal } from '../../text/refusal.ts';
import { typesetOptions } from '../../text/typeset-options.ts';
import { type Exported, exportStudy } from '../export-study.ts';
import type { PagePart } from '../handouts/handout-html.ts';
import { type ExportQuery, exportRequest } from '../export-query.ts';

const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';
const DOCUMENT = {
  schritt: 1,
  kind: 'study',
  title: 'Lake {1} <a> & ~ 50 % #2: x = y',
  problem: {
    title: 'Lake',
    text: "w' = -k*w + t\nk = 1\nw(0) = 2\n0 <= t <= 2\nw(t) = (2 + 1/k^2)*exp(-k*t) + t/k - 1/k^2",
  },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Heun', text: HEUN },
  ],
  ladder: { counts: [10, 20, 40] },
} as const;

function exported(query: Omit<ExportQuery, 'what'>): Exported {
  const opened = openStudy(DOCUMENT);
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  const request = exportRequest(DOCUMENT.title, opened.study, {
    method: 'Heun',
    h: '0.1',
    ...query,
    what: 'questions',
  });
  return exportStudy(DOCUMENT, opened.study, request, (tex, wide) =>
    katex.renderToString(tex, typesetOptions(wide, 'mathml')),
  );
}

/** The run by a loop of its own: values and both stages. */
function loop(
  k: number,
  h: number,
  steps: number,
): { readonly w: readonly number[]; readonly stages: readonly (readonly number[])[] } {
  const f = (t: number, w: number): number => -k * w + t;
  const w = [2];
  const stages: number[][] = [];
  for (let n = 0; n < steps; n += 1) {
    const now = w[n]!;
    const k1 = f(n * h, now);
    const k2 = f(n * h + h, now + h * k1);
    stages.push([k1, k2]);
    w.push(now + (h / 2) * (k1 + k2));
  }
  return { w, stages };
}

function errorAt(k: number, steps: number): number {
  const exact = (2 + 1 / k ** 2) * Math.exp(-2 * k) + 2 / k - 1 / k ** 2;
  return Math.abs(loop(k, 2 / steps, steps).w[steps]! - exact);
}

/** What a question asks for, read from its own text, and computed here. */
function expected(text: string): number {
  const k = Number(/k &(?:#38;)?= ([\d.]+)/.exec(text)?.[1]);
  const run = loop(k, 0.1, 6);
  if (text.includes('grid point')) {
    const [, stage, step] = /Compute \\\(k_\{(\d)\}\\\) of the step from grid point (\d)/.exec(text)!;
    return run.stages[Number(step)]![Number(stage) - 1]!;
  }
  if (text.includes('observed order')) {
    const [first, second] = [...text.matchAll(/h = ([\d.]+)\\\)/g)].map(([, h]) => Number(h));
    return (
      Math.log(errorAt(k, Math.round(2 / first!)) / errorAt(k, Math.round(2 / second!))) /
      Math.log(first! / second!)
    );
  }
  if (text.includes('not grow')) return 2 / k;
  const steps = text.includes('one step') ? 1 : Number(/after (\d+) steps/.exec(text)?.[1]);
  return run.w[steps]!;
}

const VARIANTS = { variants: 'k in 0.5, 0.55, ..., 1.4', sheets: '10', kinds: 'value,stage,order,stable' };

interface Numerical {
  readonly '@type': string;
  readonly questiontext: { readonly text: string; readonly file?: { readonly '#text': string } };
  readonly answer: { readonly text: string; readonly tolerance: string };
}

/** The parts of a file with the same base 64 for every plot. */
function textOf(parts: readonly PagePart[]): string {
  return parts.map((part) => (typeof part === 'string' ? part : 'PHN2Zy8+')).join('\n');
}

const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@', parseTagValue: false });

test('forty questions of Moodle XML are well formed, and their keys are those of a loop', () => {
  const made = exported({ ...VARIANTS, as: 'xml' });
  if (made.kind !== 'page') throw new Error(made.kind);
  const xml = textOf(made.parts);
  expect(SyntaxValidator.validate(xml)).toBe(true);
  const { quiz }: { quiz: { question: readonly Numerical[] } } = parser.parse(xml);
  const questions = quiz.question.filter((question) => question['@type'] === 'numerical');
  expect(questions).toHaveLength(40);
  for (const { questiontext, answer } of questions) {
    const key = expected(questiontext.text);
    expect(Math.abs(Number(answer.text) - key)).toBeLessThan(1e-9 * Math.abs(key));
    // a unit of the last of six digits, or of two decimals of an order
    const tolerance = Number(answer.tolerance);
    const unit = questiontext.text.includes('observed order')
      ? 0.01
      : 10 ** (Math.floor(Math.log10(Math.abs(key))) - 5);
    expect(tolerance / unit).toBeCloseTo(1, 9);
  }
  // the first of all are different, and the same seed gives the same again
  expect(new Set(questions.map(({ questiontext }) => questiontext.text)).size).toBeGreaterThan(30);
  expect(exported({ ...VARIANTS, as: 'xml' })).toEqual(made);
  const withPlot = questions.filter(({ questiontext }) => questiontext.file !== undefined);
  expect(withPlot).toHaveLength(10);
  expect(made.parts.filter((part) => typeof part !== 'string')).toHaveLength(10);
  expect(withPlot[0]!.questiontext.text).toContain('@@PLUGINFILE@@/plot.svg');
  expect(withPlot[0]!.questiontext.file!['#text'].trim()).toBe('PHN2Zy8+');
});

/** A text of GIFT with its escapes taken back (Moodle documentation, GIFT format). */
function unescaped(text: string): string {
  return text.replace(/\\([\\~=#{}:])/g, '$1');
}

test('forty questions of GIFT have the same keys; no sign of a text ends a question', () => {
  const made = exported({ ...VARIANTS, as: 'gift' });
  if (made.kind !== 'text') throw new Error(made.kind);
  const questions = made.text
    .trim()
    .split('\n\n')
    .filter((part) => part.startsWith('::'));
  expect(questions).toHaveLength(40);
  for (const question of questions) {
    const found = /^::((?:\\.|[^\\:])+)::\[html\]((?:\\.|[^\\~=#{}])+)\{#(-?[\d.e-]+):([\d.e-]+)\}$/.exec(
      question,
    );
    if (found === null) throw new Error(question);
    const [, name, text, key] = found;
    expect(unescaped(name!)).toContain(DOCUMENT.title);
    expect(Math.abs(Number(key) - expected(unescaped(text!)))).toBeLessThan(1e-9 * Math.abs(Number(key)));
  }
});

test('forty items of QTI are well formed, in the manifest, and have the same keys', () => {
  const made = exported({ ...VARIANTS, as: 'qti' });
  const moodle = exported({ ...VARIANTS, as: 'xml' });
  if (made.kind !== 'package' || moodle.kind !== 'page') throw new Error(made.kind);
  const keys = [...textOf(moodle.parts).matchAll(/<answer [^>]*><text>([^<]+)<\/text>/g)].map(
    ([, key]) => key,
  );
  const items = made.files.filter(({ name }) => /^question-\d+\.xml$/.test(name));
  expect(items).toHaveLength(40);
  items.forEach(({ content }, i) => {
    if (typeof content !== 'string') throw new Error('an item is a text');
    expect(SyntaxValidator.validate(content)).toBe(true);
    const { assessmentItem } = parser.parse(content);
    expect(assessmentItem.responseDeclaration.correctResponse.value).toBe(keys[i]);
    expect(assessmentItem['@identifier']).toBe(`question-${i + 1}`);
    expect(content.split('<textEntryInteraction ')).toHaveLength(2);
    expect(content).toContain('<math xmlns="http://www.w3.org/1998/Math/MathML"');
    expect(content).not.toContain('annotation');
  });
  const manifest = made.files.find(({ name }) => name === 'imsmanifest.xml')!.content;
  const listed = [...(typeof manifest === 'string' ? manifest : '').matchAll(/<file href="([^"]+)"/g)].map(
    ([, name]) => name,
  );
  expect(listed).toEqual(made.files.slice(1).map(({ name }) => name));
});

test('a wrong coefficient has one right number in its place, and lowers the order', () => {
  const made = exported({ as: 'gift', kinds: 'coefficient', seed: '3' });
  if (made.kind !== 'text') throw new Error(made.kind);
  const text = unescaped(made.text);
  expect(text).toContain('meant to be Heun, of order 2');
  expect(text).toMatch(/so that it has order [01]\./);
  // the only numbers of Heun's method above 1 are twos
  expect(text).toContain('{#2:0}');
  expect(Number(/The wrong number is a (\d)/.exec(text)![1])).toBeGreaterThan(2);
});

test.each([
  [{ as: 'gift', method: 'Euler', kinds: 'coefficient' }, 'a proved order of 2 or more'],
  [{ as: 'gift', method: 'Euler', kinds: 'stage' }, 'has no stages with a name'],
  [{ as: 'gift', kinds: 'slope' }, 'kinds takes order, value, stage, stable, coefficient, not slope'],
  [{ as: 'qti', variants: 'q in 1..3' }, 'there is no parameter and no initial value q'],
])('what cannot be asked is refused in words: %j', (query, words) => {
  let said: unknown = null;
  try {
    exported(query);
  } catch (thrown) {
    said = thrown;
  }
  expect(said).toBeInstanceOf(Refusal);
  expect(String(said)).toContain(words);
});
