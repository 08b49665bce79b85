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

/** Pixels that the numbers beside a picture take, about. */
const AXIS = 50;

/** Pixels of the screen that a pixel of a canvas is: a page that is enlarged is as sharp as one that is not. */
function sharpness(canvas: HTMLCanvasElement): number {
  // not every browser tells it
  const zoom: unknown = canvas.currentCSSZoom;
  return window.devicePixelRatio * (typeof zoom === 'number' ? zoom : 1);
}

/** How far two units may differ, as a part, and still count as equal. */
const ALIKE = 0.002;

/** Makes a unit take as much room across as up, by giving room on the axis that has too much of it. */
function equalise(chart: Chart): void {
  const { x, y } = chart.scales;
  const { width, height } = chart.chartArea;
  if (x === undefined || y === undefined || !(width > 0) || !(height > 0)) return;
  const [spanX, spanY] = [x.max - x.min, y.max - y.min];
  const unit = Math.max(spanX / width, spanY / height);
  for (const [scale, span, room] of [
    [x, spanX, width],
    [y, spanY, height],
  ] as const) {
    const more = (unit * room - span) / 2;
    const options = chart.options.scales?.[scale.id];
    if (options === undefined || more < ALIKE * span) continue;
    options.min = scale.min - more;
    options.max = scale.max + more;
  }
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
    const host = canvas.current;
    const made = new Chart<'scatter'>(host, {
      type: 'scatter',
      data: { datasets: datasetsOf(first.picture, host.clientWidth - AXIS) },
      options: {
        ...optionsOf(first.picture, first.palette, () => now.current.events),
        devicePixelRatio: sharpness(host),
      },
      plugins: [
        {
          id: 'overlays',
          beforeDatasetsDraw: (of) => overlays(of, true),
          afterDatasetsDraw: (of) => overlays(of, false),
        },
        {
          id: 'room',
          resize: (of) => {
            of.data.datasets = datasetsOf(now.current.picture, host.clientWidth - AXIS);
            // the room is known only after a first layout; ends that are set once stay until the next picture
            if (now.current.picture.equal === true) setTimeout(() => laid(of), 0);
          },
        },
      ],
    });
    const laid = (of: Chart): void => {
      if (chart.current !== made) return;
      of.options.scales =
        optionsOf(now.current.picture, now.current.palette, () => now.current.events).scales ?? {};
      of.update('none');
      equalise(of);
      of.update('none');
    };
    if (first.picture.equal === true) setTimeout(() => laid(made), 0);
    chart.current = made;
    return () => {
      chart.current = null;
      made.destroy();
    };
  }, [canvas]);

  useEffect(() => {
    const before = now.current;
    const made = chart.current;
    const host = canvas.current;
    if (made === null || host === null) return;
    if (before.picture === picture && before.palette === palette) return;
    now.current = { ...before, picture, palette };
    if (before.palette === palette && onlyOverlaysDiffer(before.picture, picture)) {
      made.draw();
      return;
    }
    made.data.datasets = datasetsOf(picture, host.clientWidth - AXIS);
    made.options = {
      ...optionsOf(picture, palette, () => now.current.events),
      devicePixelRatio: sharpness(host),
    };
    made.update('none');
    if (picture.equal !== true) return;
    equalise(made);
    made.update('none');
  }, [canvas, picture, palette]);
}
