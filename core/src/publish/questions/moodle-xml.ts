import XMLBuilder from 'fast-xml-builder';
import type { PagePart } from '../handouts/handout-html.ts';
import { htmlText } from '../tables/table-formats.ts';
import type { Question, QuestionLine } from './question.ts';

/** A line as HTML in which MathJax sets what is between \( and \) or \[ and \]. */
export function mathJaxLine(line: QuestionLine, plot: string): string {
  switch (line.kind) {
    case 'sentence': {
      const parts = line.segments.map((segment) =>
        typeof segment === 'string' ? htmlText(segment) : `\\(${htmlText(segment.tex)}\\)`,
      );
      return `<p>${parts.join('')}</p>`;
    }
    case 'formula':
      return `<p>\\[${htmlText(line.tex)}\\]</p>`;
    case 'plot':
      return plot;
  }
}

const BUILDER = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  cdataPropName: 'cdata',
  suppressEmptyNode: true,
});

/** What stands for a plot until it is drawn: no text that a person types holds it. */
const DRAWN = '\u0000plot\u0000';

function questionXml(question: Question): readonly PagePart[] {
  const { name, lines, answer, tolerance } = question;
  const plot = lines.find((line) => line.kind === 'plot');
  const html = lines
    .map((line) =>
      mathJaxLine(
        line,
        '<p><img src="@@PLUGINFILE@@/plot.svg" alt="The solution and the points of the run"/></p>',
      ),
    )
    .join('\n');
  const file = { '@name': 'plot.svg', '@path': '/', '@encoding': 'base64', '#text': DRAWN };
  const made = BUILDER.build({
    question: {
      '@type': 'numerical',
      name: { text: name },
      questiontext: { '@format': 'html', text: { cdata: html }, ...(plot === undefined ? {} : { file }) },
      generalfeedback: { '@format': 'html', text: { cdata: `<p>${String(answer)}</p>` } },
      defaultgrade: '1',
      penalty: '0.3333333',
      hidden: '0',
      answer: {
        '@fraction': '100',
        '@format': 'moodle_auto_format',
        text: String(answer),
        feedback: { '@format': 'html', text: '' },
        tolerance: String(tolerance),
      },
      unitgradingtype: '0',
      unitpenalty: '0.1000000',
      showunits: '3',
      unitsleft: '0',
    },
  });
  if (plot?.kind !== 'plot') return [made];
  const [before = '', after = ''] = made.split(DRAWN);
  return [before, plot.plot, after];
}

/**
 * Questions as Moodle XML: numerical questions with a tolerance, formulas for MathJax, plots as embedded files.
 *
 * Source: Moodle documentation, "Moodle XML format".
 */
export function moodleXml(title: string, questions: readonly Question[]): readonly PagePart[] {
  const category = BUILDER.build({
    question: { '@type': 'category', category: { text: `$course$/${title.replaceAll('/', '//')}` } },
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>\n<quiz>',
    category,
    ...questions.flatMap(questionXml),
    '</quiz>\n',
  ];
}
