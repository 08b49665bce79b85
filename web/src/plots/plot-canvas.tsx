import type { PlotSize } from '@schritt/core/document';
import { calmed, type Plot, type PlotEvents, type Sheet, SHEETS } from '@schritt/plot';
import { Button, Select } from 'antd';
import { type ReactNode, useMemo, useRef, useState } from 'react';
import { useNotices } from '../frame/use-notices.tsx';
import { usePalette } from '../theme/use-palette.ts';
import { download } from './download.ts';
import { Legend, type Switches } from './legend.tsx';
import { plotCsv, plotName } from './plot-files.ts';
import { plotWords } from './plot-words.ts';
import { usePlot } from './use-plot.ts';
import { useZoom } from './use-zoom.ts';
import './plot-canvas.css';

/** The plot without what is switched off. */
function withoutHidden(plot: Plot, hidden: ReadonlySet<string>): Plot {
  if (hidden.size === 0) return plot;
  return {
    ...plot,
    series: plot.series.filter(({ id }) => !hidden.has(id)),
    legend: plot.legend.filter(({ id }) => !hidden.has(id)),
    overlays: plot.overlays.map((overlay) =>
      overlay.kind === 'fits'
        ? { ...overlay, fits: overlay.fits.filter(({ id }) => !hidden.has(id)) }
        : overlay,
    ),
  };
}

/** Height that a legend below a plot takes, in pixels. */
const LEGEND = 28;

/** Pixels of a PNG for each pixel of 1/96 inch of a paper: 384 an inch. */
const PRINTED = 4;

/** How large a plot is saved: as it stands, or for a slide or a column of a paper. */
type FileSize = 'shown' | PlotSize;

const FILE_SIZES: readonly { readonly value: FileSize; readonly label: string }[] = [
  { value: 'shown', label: 'As shown' },
  { value: 'slide', label: 'Slide' },
  { value: 'column', label: 'Paper' },
];

/** The sheet of a plot that is saved as it stands. */
function sheetOf(canvas: HTMLCanvasElement, { legend }: Plot): Sheet {
  const width = canvas.clientWidth;
  const height = canvas.clientHeight + (legend.length > 1 ? LEGEND : 0);
  const svg = { width: String(width), height: String(height) };
  return { width, height, scale: Math.max(2, window.devicePixelRatio), svg };
}

interface PlotCanvasProps extends PlotEvents {
  readonly plot: Plot;
  /** What the legend has switched off; without it there is no legend. */
  readonly switches?: Switches;
}

/** A plot in the room that its surroundings give it, with legend, zoom and pan, and as a file. */
export function PlotCanvas({ plot, switches, onPoint, onChoose }: PlotCanvasProps): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { zoom, reset } = useZoom(canvas);
  const palette = usePalette();
  const hidden = switches?.hidden;
  const visible = useMemo(() => (hidden === undefined ? plot : withoutHidden(plot, hidden)), [plot, hidden]);
  const shown = useMemo(
    (): Plot =>
      zoom === null
        ? calmed(visible)
        : {
            ...visible,
            x: { ...visible.x, range: zoom.x },
            y: { ...visible.y, range: zoom.y },
            equal: false,
          },
    [visible, zoom],
  );
  usePlot(canvas, shown, { onPoint, onChoose });
  const [size, setSize] = useState<FileSize>('shown');
  const notices = useNotices();
  const name = plotName(plot);
  const save = async (format: 'png' | 'svg'): Promise<void> => {
    if (canvas.current === null) return;
    const sheet = size === 'shown' ? sheetOf(canvas.current, shown) : SHEETS[size];
    const { plotPng, plotSvg } = await import('./draw-plot.ts');
    const made =
      format === 'png'
        ? await plotPng(shown, palette, sheet, size === 'column' ? PRINTED : 1)
        : new Blob([plotSvg(shown, palette, sheet)], { type: 'image/svg+xml' });
    if (made === null) notices.failed('this browser cannot draw the plot; download it as SVG');
    else download(`${name}.${format}`, made);
  };
  return (
    <>
      {switches !== undefined && <Legend items={plot.legend} switches={switches} />}
      <div className="plot">
        <canvas ref={canvas} role="img" aria-label={plot.title} tabIndex={0}>
          {plotWords(shown)}
        </canvas>
        <div className="plot-tools">
          {zoom !== null && (
            <Button size="small" className="back" onClick={reset} title="Reset zoom (double click, or 0)">
              Reset zoom
            </Button>
          )}
          <Select<FileSize>
            size="small"
            className="plot-size"
            aria-label="Size of the file"
            popupMatchSelectWidth={false}
            value={size}
            options={[...FILE_SIZES]}
            onChange={setSize}
          />
          <Button size="small" onClick={() => void save('png')} title="Download this plot as PNG">
            PNG
          </Button>
          <Button size="small" onClick={() => void save('svg')} title="Download this plot as SVG">
            SVG
          </Button>
          <Button
            size="small"
            onClick={() => download(`${name}.csv`, new Blob([plotCsv(visible)], { type: 'text/csv' }))}
            title="Download the points of this plot as CSV"
          >
            CSV
          </Button>
        </div>
      </div>
    </>
  );
}
