import type { PlotSize } from '@schritt/core/document';
import { type Plot, type Sheet, SHEETS } from '@schritt/plot';
import { Button, Select } from 'antd';
import { memo, type ReactNode, type RefObject, useState } from 'react';
import { notices } from '../frame/notices.tsx';
import { usePalette } from '../theme/use-palette.ts';
import { download } from './download.ts';
import { plotCsv, plotName } from './plot-files.ts';

/** Height that a legend below a plot takes, in pixels. */
const LEGEND = 28;

/** Pixels of a PNG for each pixel of 1/96 inch of a paper: 384 an inch. */
const PRINTED = 4;

/** How large a plot is saved: as it is, or for a slide or a column of a paper. */
type FileSize = 'shown' | PlotSize;

const FILE_SIZES: readonly { readonly value: FileSize; readonly label: string }[] = [
  { value: 'shown', label: 'As shown' },
  { value: 'slide', label: 'Slide' },
  { value: 'column', label: 'Paper' },
];

/** The sheet of a plot that is saved as shown. */
function sheetOf(canvas: HTMLCanvasElement, { legend }: Plot): Sheet {
  const width = canvas.clientWidth;
  const height = canvas.clientHeight + (legend.length > 1 ? LEGEND : 0);
  const svg = { width: String(width), height: String(height) };
  return { width, height, scale: Math.max(2, window.devicePixelRatio), svg };
}

interface PlotToolsProps {
  readonly canvas: RefObject<HTMLCanvasElement | null>;
  /** The plot as it is drawn, and with all of its points. */
  readonly latest: RefObject<{ readonly shown: Plot; readonly visible: Plot }>;
}

/** Saves a plot as a file; what is saved is what is there when it is clicked. */
export const PlotTools = memo(function PlotTools({ canvas, latest }: PlotToolsProps): ReactNode {
  const palette = usePalette();
  const [size, setSize] = useState<FileSize>('shown');
  const save = async (format: 'png' | 'svg'): Promise<void> => {
    const { shown } = latest.current;
    if (canvas.current === null) return;
    const sheet = size === 'shown' ? sheetOf(canvas.current, shown) : SHEETS[size];
    const { plotPng, plotSvg } = await import('./draw-plot.ts');
    const made =
      format === 'png'
        ? await plotPng(shown, palette, sheet, size === 'column' ? PRINTED : 1)
        : new Blob([plotSvg(shown, palette, sheet)], { type: 'image/svg+xml' });
    if (made === null) notices.failed('this browser cannot draw the plot; download it as SVG');
    else download(`${plotName(shown)}.${format}`, made);
  };
  return (
    <>
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
        onClick={() => {
          const { visible } = latest.current;
          download(`${plotName(visible)}.csv`, new Blob([plotCsv(visible)], { type: 'text/csv' }));
        }}
        title="Download the points of this plot as CSV"
      >
        CSV
      </Button>
    </>
  );
});
