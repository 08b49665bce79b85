import { type ReactNode, useMemo, useRef } from 'react';
import { download } from './download.ts';
import { usePalette } from '../theme/use-palette.ts';
import { pictureData, pictureName, picturePng } from './picture-files.ts';
import type { Picture, PictureEvents } from './picture.ts';
import { usePicture } from './use-picture.ts';
import { useZoom } from './use-zoom.ts';
import './picture-canvas.css';

/** A picture in the room that its surroundings give it, with zoom and pan, and as a file. */
export function PictureCanvas({
  picture,
  onPoint,
  onChoose,
}: { readonly picture: Picture } & PictureEvents): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { zoom, reset } = useZoom(canvas);
  const palette = usePalette();
  const shown = useMemo(
    (): Picture =>
      zoom === null
        ? picture
        : { ...picture, x: { ...picture.x, range: zoom.x }, y: { ...picture.y, range: zoom.y } },
    [picture, zoom],
  );
  usePicture(canvas, shown, { onPoint, onChoose });
  const name = pictureName(picture);
  const png = async (): Promise<void> => {
    const made = canvas.current === null ? null : await picturePng(canvas.current, palette.paper);
    if (made !== null) download(`${name}.png`, made);
  };
  return (
    <>
      <canvas ref={canvas} role="img" aria-label={picture.title} tabIndex={0} />
      <div className="picture-tools">
        {zoom !== null && (
          <button type="button" onClick={reset} title="The whole picture again (double click, or 0)">
            whole
          </button>
        )}
        <button type="button" onClick={() => void png()} title="Save this picture as PNG">
          PNG
        </button>
        <button
          type="button"
          onClick={() => download(`${name}.csv`, new Blob([pictureData(picture)], { type: 'text/csv' }))}
          title="Save the points of this picture as comma-separated values"
        >
          CSV
        </button>
      </div>
    </>
  );
}
