import XMLBuilder from 'fast-xml-builder';
import type { PlotData } from '../plot-data.ts';
import type { Typeset } from '../handouts/handout-html.ts';
import { htmlText } from '../tables/table-formats.ts';
import type { Question, QuestionLine } from './question.ts';

/** A file of a package: a text, or a plot that is still to be drawn as SVG. */
export interface PackageFile {
  readonly name: string;
  readonly content: string | PlotData;
}

const BUILDER = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  suppressEmptyNode: true,
  processEntities: false,
});

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';

/** A line as XHTML with formulas in MathML. */
function line(of: QuestionLine, plot: string, typeset: Typeset): string {
  switch (of.kind) {
    case 'sentence':
      return `<p>${of.segments.map((segment) => (typeof segment === 'string' ? htmlText(segment) : mathMl(segment.tex, false, typeset))).join('')}</p>`;
    case 'formula':
      return `<p>${mathMl(of.tex, true, typeset)}</p>`;
    case 'plot':
      return `<p><img src="${plot}" alt="The solution and the points of the run"/></p>`;
  }
}

/** The element of MathML alone, without what a page has around it and without the TeX that it was made from. */
function mathMl(tex: string, wide: boolean, typeset: Typeset): string {
  const [math = ''] = /<math[^]*<\/math>/.exec(typeset(tex, wide)) ?? [];
  return math.replace(/<annotation[^]*?<\/annotation>/g, '').replaceAll('&nbsp;', '&#160;');
}

function item(question: Question, id: string, typeset: Typeset): string {
  const { name, lines, answer, tolerance } = question;
  const body = lines.map((of) => line(of, `${id}.svg`, typeset)).join('');
  const response = '<p><textEntryInteraction responseIdentifier="RESPONSE" expectedLength="16"/></p>';
  return `${HEAD}${BUILDER.build({
    assessmentItem: {
      '@xmlns': 'http://www.imsglobal.org/xsd/imsqti_v2p1',
      '@xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
      '@xsi:schemaLocation':
        'http://www.imsglobal.org/xsd/imsqti_v2p1 http://www.imsglobal.org/xsd/qti/qtiv2p1/imsqti_v2p1.xsd',
      '@identifier': id,
      '@title': htmlText(name),
      '@adaptive': 'false',
      '@timeDependent': 'false',
      responseDeclaration: {
        '@identifier': 'RESPONSE',
        '@cardinality': 'single',
        '@baseType': 'float',
        correctResponse: { value: String(answer) },
      },
      outcomeDeclaration: {
        '@identifier': 'SCORE',
        '@cardinality': 'single',
        '@baseType': 'float',
        defaultValue: { value: '0' },
      },
      itemBody: { div: `${body}${response}` },
      responseProcessing: {
        responseCondition: {
          responseIf: {
            equal: {
              '@toleranceMode': tolerance === 0 ? 'exact' : 'absolute',
              ...(tolerance === 0 ? {} : { '@tolerance': String(tolerance) }),
              variable: { '@identifier': 'RESPONSE' },
              correct: { '@identifier': 'RESPONSE' },
            },
            setOutcomeValue: { '@identifier': 'SCORE', baseValue: { '@baseType': 'float', '#text': '1' } },
          },
        },
      },
    },
  })}\n`;
}

/**
 * Questions as a package of QTI 2.1: an item for each with a number to be typed in, formulas in MathML, plots beside them,
 * and the manifest.
 *
 * Source: IMS Question & Test Interoperability 2.1 (2012), assessment items, and IMS Content Packaging 1.1.4.
 */
export function qtiPackage(
  title: string,
  questions: readonly Question[],
  typeset: Typeset,
): readonly PackageFile[] {
  const items = questions.map((question, i) => {
    const id = `question-${i + 1}`;
    const plots = question.lines.flatMap((of): readonly PackageFile[] =>
      of.kind === 'plot' ? [{ name: `${id}.svg`, content: of.plot }] : [],
    );
    return { id, files: [{ name: `${id}.xml`, content: item(question, id, typeset) }, ...plots] };
  });
  const manifest = BUILDER.build({
    manifest: {
      '@xmlns': 'http://www.imsglobal.org/xsd/imscp_v1p1',
      '@identifier': 'schritt-questions',
      metadata: { schema: 'QTIv2.1 Package', schemaversion: '1.0.0' },
      organizations: '',
      resources: {
        resource: items.map(({ id, files }) => ({
          '@identifier': id,
          '@type': 'imsqti_item_xmlv2p1',
          '@href': `${id}.xml`,
          file: files.map(({ name }) => ({ '@href': name })),
        })),
      },
    },
  });
  const note = `<!-- ${title.replaceAll('--', '- -').replace(/[<>]/g, '')} -->\n`;
  return [
    { name: 'imsmanifest.xml', content: `${HEAD}${note}${manifest}\n` },
    ...items.flatMap(({ files }) => files),
  ];
}
