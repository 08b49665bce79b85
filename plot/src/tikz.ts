import { texDocument, texText } from '@schritt/core/document';
import type { MarkerShape } from './palette.ts';
import type { Fit, Overlay, Plot, Point, Series } from './plot.ts';
import type { PrintSheet } from './static-plot.ts';

/** Names of markers in PGFPlots, filled and hollow. */
const MARKS: Readonly<Record<MarkerShape, readonly [filled: string, hollow: string]>> = {
  square: ['square*', 'square'],
  circle: ['*', 'o'],
  triangle: ['triangle*', 'triangle'],
  diamond: ['diamond*', 'diamond'],
  plus: ['+', '+'],
  cross: ['x', 'x'],
};

/** Colours of a plot as names that LaTeX knows: letters alone. */
class Colours {
  readonly #names = new Map<string, string>();

  name(color: string): string {
    const digits = /^#([\da-f]{6})$/i.exec(color)?.[1]?.toUpperCase();
    if (digits === undefined) return 'black';
    const known = this.#names.get(digits);
    if (known !== undefined) return known;
    const made = `schritt${String.fromCharCode(97 + this.#names.size)}`;
    this.#names.set(digits, made);
    return made;
  }

  definitions(): readonly string[] {
    return [...this.#names].map(([digits, name]) => `\\definecolor{${name}}{HTML}{${digits}}`);
  }
}

function coordinates(points: readonly Point[]): readonly string[] {
  return points.map(({ x, y }) => `  (${x}, ${Number.isFinite(y) ? y : 'nan'})`);
}

function addPlot(options: readonly string[], points: readonly Point[]): readonly string[] {
  return [`\\addplot[${options.join(', ')}] coordinates {`, ...coordinates(points), '};'];
}

/** One curve, or dots with the line that joins them; pale dots are hollow and apart. */
function seriesLines(series: Series, colours: Colours, isNamed: boolean): readonly string[] {
  const hidden = isNamed ? [] : ['forget plot'];
  const entry = isNamed ? [`\\addlegendentry{${texText(series.label)}}`] : [];
  if (series.kind === 'line') {
    const color = colours.name(series.color);
    const dashes = series.dashed === true ? ['dashed'] : [];
    return [
      ...addPlot([color, 'no marks', `line width=${series.width}pt`, ...dashes, ...hidden], series.points),
      ...entry,
    ];
  }
  const { mark, radius, joined, pale, points } = series;
  const color = colours.name(mark.color);
  const [filled, hollow] = MARKS[mark.shape];
  const line = joined > 0 ? `line width=${joined}pt` : 'only marks';
  const marks =
    radius > 0 ? [`mark=${mark.filled ? filled : hollow}`, `mark size=${radius / 2}pt`] : ['no marks'];
  const left = points.filter((_, i) => pale[i] === true);
  const kept = points.filter((_, i) => pale[i] !== true);
  return [
    ...addPlot([color, line, ...marks, ...hidden], kept),
    ...entry,
    ...(left.length === 0
      ? []
      : addPlot(
          [color, 'only marks', `mark=${hollow}`, `mark size=${radius / 2}pt`, 'opacity=0.5', 'forget plot'],
          left,
        )),
  ];
}

function fitLines({ from, to, color, text }: Fit, colours: Colours): readonly string[] {
  return [
    `\\addplot[${colours.name(color)}, no marks, line width=1.6pt, forget plot] coordinates {(${from.x}, ${from.y}) (${to.x}, ${to.y})}`,
    `  node[pos=0.5, sloped, above, font=\\scriptsize] {${texText(text)}};`,
  ];
}

function captionOf(overlays: readonly Overlay[]): { readonly upper: string; readonly lower: string } {
  const found = overlays.find((overlay) => overlay.kind === 'caption');
  return found ?? { upper: '', lower: '' };
}

/** An axis in the words of PGFPlots. */
function axisOptions(name: 'x' | 'y', { scale, range }: Plot['x']): readonly string[] {
  return [
    ...(scale === 'logarithmic' ? [`${name}mode=log`] : []),
    ...(range === undefined ? [] : [`${name}min=${range[0]}`, `${name}max=${range[1]}`]),
  ];
}

/**
 * A plot for LaTeX as a picture of PGFPlots with its data: curves, markers, fitted lines and the legend. What only helps
 * on a screen, such as the fan of slopes and the arrows of curves that leave the plot, is left out.
 *
 * @param part as a picture to be put into a document instead of a document
 */
export function plotTikz(plot: Plot, sheet: PrintSheet, part: boolean): string {
  const colours = new Colours();
  const { upper, lower } = captionOf(plot.overlays);
  const named = new Set<string>();
  const series = plot.series.flatMap((one) => {
    const isFirst =
      one.kind === 'dots' || !plot.series.some((other) => other.kind === 'dots' && other.id === one.id);
    const isNamed = plot.legend.length > 1 && isFirst && !named.has(one.id);
    if (isNamed) named.add(one.id);
    return seriesLines(one, colours, isNamed);
  });
  const fits = plot.overlays.flatMap((overlay) =>
    overlay.kind === 'fits' ? overlay.fits.flatMap((fit) => fitLines(fit, colours)) : [],
  );
  const options = [
    ...axisOptions('x', plot.x),
    ...axisOptions('y', plot.y),
    `title={${texText(upper)}}`,
    `xlabel={${texText(lower)}}`,
    `width=${sheet.tikz.width}`,
    `height=${sheet.tikz.height}`,
    'grid=major',
    'unbounded coords=jump',
    ...(plot.equal === true ? ['axis equal'] : []),
    'legend style={at={(0.5,-0.22)}, anchor=north, legend columns=2, font=\\footnotesize}',
  ];
  const body = [
    ...colours.definitions(),
    `% ${texText(plot.title)}`,
    '\\begin{tikzpicture}',
    `\\begin{axis}[\n  ${options.join(',\n  ')}\n]`,
    ...series,
    ...fits,
    '\\end{axis}',
    '\\end{tikzpicture}',
  ];
  return part
    ? `% needs \\usepackage{pgfplots} and \\pgfplotsset{compat=1.17}\n${body.join('\n')}\n`
    : texDocument(['\\thispagestyle{empty}', '\\noindent', ...body], {
        head: ['\\usepackage{pgfplots}', '\\pgfplotsset{compat=1.17}'],
      });
}
