import { Chart } from 'chart.js';
import { type RefObject, useEffect, useRef } from 'react';
import { usePalette } from '../theme/use-palette.ts';
import { datasetsOf, optionsOf } from './chart.ts';
import { drawOverlays } from './overlays.ts';
import type { Picture, PictureEvents } from './picture.ts';

/** Whether two pictures differ in what lies over or under their series alone. */
function onlyOverlaysDiffer(before: Picture, now: Picture): boolean {
  return before.series === now.series && before.x === now.x && before.y === now.y && before.tip === now.tip;
}

/**
 * Draws a picture on a canvas. The chart is made once; a new picture is put into it, and one whose overlays alone are
 * new, such as a mark that follows the pointer, is only drawn again.
 */
export function usePicture(
  canvas: RefObject<HTMLCanvasElement | null>,
  picture: Picture,
  events: PictureEvents,
): void {
  const chart = useRef<Chart<'scatter'> | null>(null);
  const palette = usePalette();
  const now = useRef({ picture, palette, events });
  useEffect(() => {
    now.current.events = events;
  });

  useEffect(() => {
    if (canvas.current === null) return undefined;
    const first = now.current;
    const overlays = (made: Chart, behind: boolean): void =>
      drawOverlays(made, now.current.picture.overlays, now.current.palette, behind);
    const made = new Chart<'scatter'>(canvas.current, {
      type: 'scatter',
      data: { datasets: datasetsOf(first.picture) },
      options: optionsOf(first.picture, first.palette, () => now.current.events),
      plugins: [
        {
          id: 'overlays',
          beforeDatasetsDraw: (of) => overlays(of, true),
          afterDatasetsDraw: (of) => overlays(of, false),
        },
      ],
    });
    chart.current = made;
    return () => {
      chart.current = null;
      made.destroy();
    };
  }, [canvas]);

  useEffect(() => {
    const before = now.current;
    const made = chart.current;
    if (made === null || (before.picture === picture && before.palette === palette)) return;
    now.current = { ...before, picture, palette };
    if (before.palette === palette && onlyOverlaysDiffer(before.picture, picture)) {
      made.draw();
      return;
    }
    made.data.datasets = datasetsOf(picture);
    made.options = optionsOf(picture, palette, () => now.current.events);
    made.update('none');
  }, [picture, palette]);
}
