import { Chart } from 'chart.js';
import { type RefObject, useEffect, useRef } from 'react';
import { usePalette } from '../theme/use-palette.ts';
import { datasetsOf, equalise, optionsOf, overlaysPlugin, type Plot, type PlotEvents } from '@schritt/plot';

/** Whether two plots differ in what lies over or under their series alone. */
function onlyOverlaysDiffer(before: Plot, now: Plot): boolean {
  return before.series === now.series && before.x === now.x && before.y === now.y && before.tip === now.tip;
}

/** Pixels of the screen that a pixel of a canvas is: a page that is enlarged is as sharp as one that is not. */
function sharpness(canvas: HTMLCanvasElement): number {
  // not every browser tells it
  const zoom: unknown = canvas.currentCSSZoom;
  return window.devicePixelRatio * (typeof zoom === 'number' ? zoom : 1);
}

/**
 * Draws a plot on a canvas. The chart is made once; a new plot is put into it, and one whose overlays alone are
 * new, such as a mark that follows the pointer, is only drawn again.
 */
export function usePlot(canvas: RefObject<HTMLCanvasElement | null>, plot: Plot, events: PlotEvents): void {
  const chart = useRef<Chart<'scatter'> | null>(null);
  const palette = usePalette();
  const now = useRef({ plot, palette, events });
  useEffect(() => {
    now.current.events = events;
  });

  useEffect(() => {
    const host = canvas.current;
    if (host === null) return undefined;
    const make = (): (() => void) => {
      const first = now.current;
      const made = new Chart<'scatter'>(host, {
        type: 'scatter',
        data: { datasets: datasetsOf(first.plot, host.clientWidth) },
        options: {
          ...optionsOf(first.plot, first.palette, () => now.current.events),
          devicePixelRatio: sharpness(host),
        },
        plugins: [
          overlaysPlugin(() => now.current),
          {
            id: 'room',
            resize: (of) => {
              of.data.datasets = datasetsOf(now.current.plot, host.clientWidth);
              // the room is known only after a first layout; ends that are set once stay until the next plot
              if (now.current.plot.equal === true) setTimeout(() => laid(of), 0);
            },
          },
        ],
      });
      const laid = (of: Chart): void => {
        if (chart.current !== made) return;
        of.options.scales =
          optionsOf(now.current.plot, now.current.palette, () => now.current.events).scales ?? {};
        of.update('none');
        equalise(of);
      };
      if (first.plot.equal === true) setTimeout(() => laid(made), 0);
      chart.current = made;
      // what was drawn with another face, before its own was there
      const faces = 'fonts' in document ? document.fonts : null;
      const again = (): void => made.update('none');
      faces?.addEventListener('loadingdone', again);
      return () => {
        faces?.removeEventListener('loadingdone', again);
        chart.current = null;
        made.destroy();
      };
    };
    let destroy: (() => void) | null = null;
    // numbers come first
    const timer = setTimeout(() => {
      destroy = make();
    }, 0);
    return () => {
      clearTimeout(timer);
      destroy?.();
    };
  }, [canvas]);

  useEffect(() => {
    const before = now.current;
    const host = canvas.current;
    if (host === null || (before.plot === plot && before.palette === palette)) return undefined;
    const made = chart.current;
    if (made === null) {
      // it is made with the newest plot
      now.current = { ...before, plot, palette };
      return undefined;
    }
    const draw = (): void => {
      now.current = { ...now.current, plot, palette };
      if (before.palette === palette && onlyOverlaysDiffer(before.plot, plot)) {
        made.draw();
        return;
      }
      made.data.datasets = datasetsOf(plot, host.clientWidth);
      made.options = {
        ...optionsOf(plot, palette, () => now.current.events),
        devicePixelRatio: sharpness(host),
      };
      made.update('none');
      if (plot.equal === true) equalise(made);
    };
    // of plots that follow one another closely the last one is drawn
    const timer = setTimeout(draw, 0);
    return () => clearTimeout(timer);
  }, [canvas, plot, palette]);
}
