import type { ChartOptions } from 'chart.js';
import { orderText, stepSizeText } from '@schritt/core/notation';
import { evaluations, type RungResult } from '@schritt/core/study';
import { type ReactNode, useMemo } from 'react';
import { Scatter } from 'react-chartjs-2';
import { powerOfTen } from '../math/superscript.ts';
import type { KeyedResult } from '../study/use-results.ts';
import type { Pointed } from '../table/rung-table.tsx';
import { methodMark, type Palette } from '../theme/tokens.ts';
import { usePalette } from '../theme/use-palette.ts';
import { bandPlugin, captionPlugin, paperGrid, pointOptions } from './chart-setup.ts';
import { type FitLine, fitPlugin, guidePlugin } from './fit-plugins.ts';

/** What errors are shown over. */
export type ErrorsOver = 'h' | 'evaluations';

interface OrderPictureProps {
  readonly keyed: KeyedResult;
  readonly placeOf: (key: string) => number;
  readonly over: ErrorsOver;
  /** What the error is of, for the caption. */
  readonly caption: string;
  readonly chosenSize: number | null;
  readonly pointed: Pointed | null;
  readonly onChoose: (rung: number) => void;
}

function placeOn(over: ErrorsOver, rung: RungResult): number {
  return over === 'h' ? rung.h : Math.max(1, evaluations(rung.cost));
}

function fitLines(
  { result, keys }: KeyedResult,
  placeOf: (key: string) => number,
  palette: Palette,
): readonly FitLine[] {
  return result.methods.flatMap(({ fit, rungs }, i) => {
    if (fit === null) return [];
    const sizes = fit.rungs.map((rung) => rungs[rung]?.h ?? NaN);
    const at = (x: number): { x: number; y: number } => ({ x, y: fit.constant * x ** fit.order });
    return [
      {
        color: methodMark(palette, placeOf(keys[i] ?? '')).color,
        text: orderText(fit.order, fit.standardError),
        from: at(Math.min(...sizes)),
        to: at(Math.max(...sizes)),
      },
    ];
  });
}

/** A pale colour of the same hue, for points that do not count. */
function pale(color: string): string {
  return `${color}99`;
}

/**
 * Errors over step sizes or over cost, both on logarithmic scales. Over h the slope of a line is the order: the rungs
 * that count are filled, those left out are hollow, and the fitted line runs over its window.
 */
export function OrderPicture(props: OrderPictureProps): ReactNode {
  const { keyed, placeOf, over, caption, chosenSize, pointed, onChoose } = props;
  const palette = usePalette();
  const data = useMemo(
    () => ({
      datasets: keyed.result.methods.map((method, i) => {
        const key = keyed.keys[i] ?? '';
        const mark = methodMark(palette, placeOf(key));
        const isPointed = (row: number): boolean =>
          pointed !== null && (pointed.key === null || pointed.key === key) && pointed.rows.includes(row);
        const ground = method.rungs.map(({ leftOut }) => (leftOut === null ? mark.color : palette.paper));
        return {
          label: method.title,
          data: method.rungs.map((rung) => ({
            x: placeOn(over, rung),
            y: rung.error !== null && rung.error > 0 ? rung.error : NaN,
          })),
          showLine: true,
          ...pointOptions(mark, palette.paper),
          borderColor: pale(mark.color),
          borderWidth: over === 'h' ? 0.8 : 1.6,
          pointBackgroundColor: ground,
          pointHoverBackgroundColor: ground,
          pointBorderColor: method.rungs.map(({ leftOut }) =>
            leftOut === null ? mark.color : pale(mark.color),
          ),
          pointRadius: method.rungs.map((_, row) => (isPointed(row) ? 7.5 : 4)),
        };
      }),
    }),
    [keyed, palette, placeOf, over, pointed],
  );
  const options = useMemo(
    (): ChartOptions<'scatter'> => ({
      responsive: true,
      maintainAspectRatio: false,
      layout: { padding: { top: 8, right: 14 } },
      scales: {
        x: {
          type: 'logarithmic',
          ticks: {
            color: palette.quiet,
            maxRotation: 0,
            padding: 6,
            callback: (value) => {
              const [digits, exponent = '0'] = Number(value).toExponential().split('e');
              if (digits !== '1') return '';
              return Math.abs(Number(exponent)) > 3
                ? powerOfTen(Number(exponent))
                : stepSizeText(Number(value));
            },
          },
          ...paperGrid(palette),
        },
        y: {
          type: 'logarithmic',
          ticks: {
            color: palette.quiet,
            callback: (value) => {
              const exponent = Math.log10(Number(value));
              return Number.isInteger(exponent) && exponent % 2 === 0 ? powerOfTen(exponent) : '';
            },
          },
          ...paperGrid(palette),
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          backgroundColor: palette.ink,
          bodyColor: palette.paper,
          displayColors: false,
          callbacks: {
            label: ({ dataset, parsed }) =>
              `${dataset.label ?? ''}: error ${parsed.y?.toExponential(3) ?? ''} ${over === 'h' ? `at h = ${stepSizeText(parsed.x ?? NaN)}` : `for ${(parsed.x ?? NaN).toLocaleString('en')} evaluations`}`,
          },
        },
      },
      onClick: (_, elements) => {
        const [element] = elements;
        if (element !== undefined) onChoose(element.index);
      },
    }),
    [palette, onChoose, over],
  );
  const promised = keyed.result.methods.flatMap(({ promised: of }) =>
    of.kind === 'order' ? [of.order] : [],
  );
  const guides = [...new Set(promised.filter((order) => order > 0))].sort((a, b) => a - b);
  const plugins = [
    captionPlugin('caption', caption, over, palette, over === 'evaluations'),
    ...(over === 'h'
      ? [
          bandPlugin('chosen', chosenSize, palette),
          fitPlugin(fitLines(keyed, placeOf, palette)),
          guidePlugin(guides, palette),
        ]
      : []),
  ];
  // plugins are given to a chart once, when it is made
  const version = JSON.stringify([keyed.result.methods.map(({ fit }) => fit), keyed.keys]);
  return (
    <Scatter
      key={`${over}/${chosenSize ?? ''}/${palette.paper}/${caption}/${version}`}
      data={data}
      options={options}
      plugins={plugins}
      aria-label={`Order: ${caption} over ${over}, both logarithmic`}
      role="img"
    />
  );
}
