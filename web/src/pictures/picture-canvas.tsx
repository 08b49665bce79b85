import { Button } from 'antd';
import { Chart } from 'chart.js';
import { type ReactNode, useMemo, useRef } from 'react';
import { usePalette } from '../theme/use-palette.ts';
import { calmed } from './calm.ts';
import { download } from './download.ts';
import { Legend, type Switches } from './legend.tsx';
import { pictureData, pictureName, picturePng } from './picture-files.ts';
import { pictureSvg } from './picture-svg.ts';
import { pictureWords } from './picture-words.ts';
import type { Picture, PictureEvents } from './picture.ts';
import { usePicture } from './use-picture.ts';
import { useZoom } from './use-zoom.ts';
import './picture-canvas.css';

/** The picture without what is switched off. */
function withoutHidden(picture: Picture, hidden: ReadonlySet<string>): Picture {
  if (hidden.size === 0) return picture;
  return {
    ...picture,
    series: picture.series.filter(({ id }) => !hidden.has(id)),
    overlays: picture.overlays.map((overlay) =>
      overlay.kind === 'fits'
        ? { ...overlay, fits: overlay.fits.filter(({ id }) => !hidden.has(id)) }
        : overlay,
    ),
  };
}

interface PictureCanvasProps extends PictureEvents {
  readonly picture: Picture;
  /** What the legend has switched off; without it there is no legend. */
  readonly switches?: Switches;
}

/** A picture in the room that its surroundings give it, with legend, zoom and pan, and as a file. */
export function PictureCanvas({ picture, switches, onPoint, onChoose }: PictureCanvasProps): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { zoom, reset } = useZoom(canvas);
  const palette = usePalette();
  const hidden = switches?.hidden;
  const visible = useMemo(
    () => (hidden === undefined ? picture : withoutHidden(picture, hidden)),
    [picture, hidden],
  );
  const shown = useMemo(
    (): Picture =>
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
  usePicture(canvas, shown, { onPoint, onChoose });
  const name = pictureName(picture);
  const png = async (): Promise<void> => {
    const made = canvas.current === null ? null : await picturePng(canvas.current, palette.paper);
    if (made !== null) download(`${name}.png`, made);
  };
  const svg = (): void => {
    const chart = canvas.current === null ? undefined : Chart.getChart(canvas.current);
    if (chart === undefined) return;
    download(`${name}.svg`, new Blob([pictureSvg(chart, shown, palette)], { type: 'image/svg+xml' }));
  };
  return (
    <>
      {switches !== undefined && <Legend items={picture.legend} switches={switches} />}
      <div className="picture">
        <canvas ref={canvas} role="img" aria-label={picture.title} tabIndex={0}>
          {pictureWords(shown)}
        </canvas>
        <div className="picture-tools">
          {zoom !== null && (
            <Button size="small" className="back" onClick={reset} title="Reset zoom (double click, or 0)">
              Reset zoom
            </Button>
          )}
          <Button size="small" onClick={() => void png()} title="Download this plot as PNG">
            PNG
          </Button>
          <Button size="small" onClick={svg} title="Download this plot as SVG">
            SVG
          </Button>
          <Button
            size="small"
            onClick={() => download(`${name}.csv`, new Blob([pictureData(visible)], { type: 'text/csv' }))}
            title="Download the points of this plot as CSV"
          >
            CSV
          </Button>
        </div>
      </div>
    </>
  );
}
