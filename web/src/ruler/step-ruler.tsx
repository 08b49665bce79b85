import { stepSizeText } from '@schritt/core/text';
import { type ReactNode, type RefObject, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { type RulerLayout, rulerLayout } from './ruler-layout.ts';
import { AXIS, ChosenMark, RulerMarkButton, SizeAxis } from './ruler-marks.tsx';
import { placeOfSize } from './scale.ts';
import { StepLimits } from './step-limits.tsx';
import { useRuler } from './use-ruler.ts';
import './step-ruler.css';

/** Step sizes beside which every one has room for its tick. */
const MANY = 16;

/** The width of an element, as it changes. */
function useWidth(first: number): readonly [host: RefObject<HTMLDivElement | null>, width: number] {
  const host = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = host.current;
    if (element === null) return undefined;
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [host, width];
}

/**
 * The step sizes of a study on a logarithmic scale of h. One is chosen by click or with the arrow keys; the handle is
 * dragged along to any h that divides the interval, or moved by one step of N with Shift and an arrow. h grows to the
 * right. A double click adds a step size, Delete removes the chosen one, and a tick above one draws its run with the
 * others.
 */
export function StepRuler(): ReactNode {
  const { chosen, problem } = useStudyState('chosen', 'problem');
  const [host, width] = useWidth(960);
  const layout = useMemo(() => rulerLayout(chosen, problem, width), [chosen, problem, width]);
  return (
    <div className="step-ruler" ref={host}>
      {layout === null ? (
        <p className="quiet">
          {problem === null
            ? 'The problem has errors; nothing can be computed yet.'
            : 'No step sizes yet. Add one on the left.'}
        </p>
      ) : (
        <Ruler layout={layout} width={width} />
      )}
    </div>
  );
}

function Ruler({ layout, width }: { readonly layout: RulerLayout; readonly width: number }): ReactNode {
  const { problem, view, limits, methods } = useStudyState('problem', 'view', 'limits', 'methods');
  const length = problem === null ? 1 : problem.end - problem.start;
  const { press, drag, add, tick, remove } = useRuler(layout, length);
  const [dragging, setDragging] = useState(false);
  const { scale, order, now, here, counted } = layout;
  return (
    <svg
      width={width}
      height={87}
      role="slider"
      tabIndex={0}
      aria-label="Step size"
      aria-valuemin={Math.min(...order.map(({ grid }) => grid.steps))}
      aria-valuemax={Math.max(...order.map(({ grid }) => grid.steps))}
      aria-valuenow={now.steps}
      aria-valuetext={`h = ${stepSizeText(now.h)}, ${now.steps} steps`}
      className={dragging ? 'dragging' : ''}
      onKeyDown={press}
      onDoubleClick={add}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDragging(true);
        drag(event);
      }}
      onPointerMove={(event) => {
        if (dragging) drag(event);
      }}
      onPointerUp={() => setDragging(false)}
      onPointerCancel={() => setDragging(false)}
    >
      <rect x={here - 23} y={14} width={46} height={66} rx={2} className="chosen-band" />
      <StepLimits
        limits={[...limits].map(([key, limit]) => ({
          key,
          title: methods.titleOf(key),
          place: methods.placeOf(key),
          limit,
        }))}
        scale={scale}
        axis={AXIS}
      />
      <SizeAxis layout={layout} length={length} width={width} />
      {order.map((mark) => (
        <RulerMarkButton
          key={mark.index}
          mark={mark}
          x={placeOfSize(scale, mark.grid.h)}
          isChosen={mark.index === now.rung}
          isCounted={counted.has(mark.index)}
          isTicked={view.ticked.includes(mark.index)}
          hasTick={order.length < MANY || view.ticked.includes(mark.index)}
          onTick={() => tick(mark.index)}
        />
      ))}
      <ChosenMark layout={layout} onRemove={remove} />
    </svg>
  );
}
