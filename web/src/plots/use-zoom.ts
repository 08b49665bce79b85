import { Chart } from 'chart.js';
import { createContext, type RefObject, useCallback, useContext, useEffect, useRef, useState } from 'react';
import { isDrawable, panned, type Zoom, type ZoomAxis, zoomed } from './zoom.ts';

/** How much a step of the wheel or a key draws out. */
const STEP = 1.2;
/** Pixels beyond which a press is a drag and no click. */
const STILL = 4;

function axisOf(chart: Chart, name: 'x' | 'y'): ZoomAxis | null {
  const scale = chart.scales[name];
  if (scale === undefined) return null;
  return {
    from: scale.getPixelForValue(scale.min),
    to: scale.getPixelForValue(scale.max),
    valueAt: (pixel) => scale.getValueForPixel(pixel) ?? NaN,
  };
}

/** Where the zoom of a plot is kept, for a page that has it in its address; null for nowhere. */
export interface KeptZoom {
  readonly zoom: Zoom | null;
  readonly setZoom: (zoom: Zoom | null) => void;
}

export const ZoomContext = createContext<KeptZoom | null>(null);

/** Zoom and pan of a plot by wheel, drag and keys; null for the plot as it was made. */
export function useZoom(canvas: RefObject<HTMLCanvasElement | null>): {
  readonly zoom: Zoom | null;
  readonly reset: () => void;
} {
  const [own, setOwn] = useState<Zoom | null>(null);
  const { zoom, setZoom } = useContext(ZoomContext) ?? { zoom: own, setZoom: setOwn };
  const drag = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  const reset = useCallback(() => setZoom(null), [setZoom]);
  useEffect(() => {
    const host = canvas.current;
    if (host === null) return undefined;
    const change = (make: (x: ZoomAxis, y: ZoomAxis) => Zoom): void => {
      const chart = Chart.getChart(host);
      const [x, y] = chart === undefined ? [null, null] : [axisOf(chart, 'x'), axisOf(chart, 'y')];
      if (x === null || y === null) return;
      const made = make(x, y);
      if (isDrawable(made)) setZoom(made);
    };
    const about = (px: number, py: number, factor: number): void =>
      change((x, y) => ({ x: zoomed(x, px, factor), y: zoomed(y, py, factor) }));
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      about(event.offsetX, event.offsetY, event.deltaY > 0 ? STEP : 1 / STEP);
    };
    const down = (event: PointerEvent): void => {
      drag.current = { x: event.offsetX, y: event.offsetY, moved: false };
    };
    const move = (event: PointerEvent): void => {
      const from = drag.current;
      if (from === null || event.buttons === 0) return;
      const [dx, dy] = [event.offsetX - from.x, event.offsetY - from.y];
      if (!from.moved && Math.hypot(dx, dy) < STILL) return;
      drag.current = { x: event.offsetX, y: event.offsetY, moved: true };
      change((x, y) => ({ x: panned(x, dx), y: panned(y, dy) }));
    };
    const up = (): void => {
      drag.current = null;
    };
    const press = (event: KeyboardEvent): void => {
      const [middleX, middleY] = [host.clientWidth / 2, host.clientHeight / 2];
      if (event.key === '+') about(middleX, middleY, 1 / STEP);
      else if (event.key === '-') about(middleX, middleY, STEP);
      else if (event.key === '0') setZoom(null);
      else return;
      event.preventDefault();
    };
    // one signal takes all listeners away again
    const listening = new AbortController();
    const { signal } = listening;
    host.addEventListener('wheel', wheel, { passive: false, signal });
    host.addEventListener('pointerdown', down, { signal });
    host.addEventListener('pointermove', move, { signal });
    for (const end of ['pointerup', 'pointerleave'] as const) host.addEventListener(end, up, { signal });
    host.addEventListener('dblclick', reset, { signal });
    host.addEventListener('keydown', press, { signal });
    return () => listening.abort();
  }, [canvas, reset, setZoom]);
  return { zoom, reset };
}
