import { withoutRunaways, type Plot, type PlotEvents } from '@schritt/plot';
import { Button } from 'antd';
import { type ReactNode, useEffect, useMemo, useRef } from 'react';
import { Legend, type Switches } from './legend.tsx';
import { PlotTools } from './plot-tools.tsx';
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

interface PlotCanvasProps extends PlotEvents {
  readonly plot: Plot;
  /** What the legend has switched off; without it there is no legend. */
  readonly switches?: Switches;
}

/** A plot in the room that its surroundings give it, with legend, zoom and pan, and as a file. */
export function PlotCanvas({ plot, switches, onPoint, onChoose }: PlotCanvasProps): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { zoom, reset } = useZoom(canvas);
  const hidden = switches?.hidden;
  const visible = useMemo(() => (hidden === undefined ? plot : withoutHidden(plot, hidden)), [plot, hidden]);
  const shown = useMemo(
    (): Plot =>
      zoom === null
        ? withoutRunaways(visible)
        : {
            ...visible,
            x: { ...visible.x, range: zoom.x },
            y: { ...visible.y, range: zoom.y },
            equal: false,
          },
    [visible, zoom],
  );
  usePlot(canvas, shown, { onPoint, onChoose });
  const latest = useRef({ shown, visible });
  useEffect(() => {
    latest.current = { shown, visible };
  });
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
          <PlotTools canvas={canvas} latest={latest} />
        </div>
      </div>
    </>
  );
}
