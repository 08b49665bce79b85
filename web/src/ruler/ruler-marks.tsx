import { stepSizeText } from '@schritt/core/text';
import type { ReactNode } from 'react';
import type { RulerMark, RulerLayout } from './ruler-layout.ts';
import { dividingSizes, placeOfSize } from './scale.ts';

/** Height at which the axis lies, in pixels. */
export const AXIS = 66;

/** Width and height of what a pointer can hit, in pixels. */
const TARGET = 24;

/** An area around a small sign that belongs to it. */
function TargetArea({ left, top }: { readonly left: number; readonly top: number }): ReactNode {
  return <rect x={left} y={top} width={TARGET} height={TARGET} fill="none" pointerEvents="all" />;
}

/** The axis with fine ticks where h divides the interval, and labelled ticks at round sizes. */
export function SizeAxis({
  layout: { scale, round },
  length,
  width,
}: {
  readonly layout: RulerLayout;
  readonly length: number;
  readonly width: number;
}): ReactNode {
  return (
    <>
      <line x1={0} x2={width - 10} y1={AXIS} y2={AXIS} className="axis" />
      {dividingSizes(scale, length).map((h) => {
        const x = placeOfSize(scale, h);
        return <line key={h} x1={x} x2={x} y1={AXIS - 4} y2={AXIS} className="fine-tick" />;
      })}
      {round.map(({ h, isLabelled }) => {
        const x = placeOfSize(scale, h);
        return (
          <g key={h}>
            <line x1={x} x2={x} y1={AXIS - 8} y2={AXIS} className="tick" />
            {isLabelled && (
              <text x={x} y={AXIS + 14} className="size">
                {stepSizeText(h)}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

interface RulerMarkProps {
  readonly mark: RulerMark;
  readonly x: number;
  readonly isChosen: boolean;
  readonly isCounted: boolean;
  /** Whether its run is drawn with the chosen one. */
  readonly isTicked: boolean;
  /** Whether there is room for its tick. */
  readonly hasTick: boolean;
  readonly onTick: () => void;
}

/** A step size of the study: a knob on the axis, its number of steps, and a tick that draws its run. */
export function RulerMarkButton({
  mark: { index, grid },
  x,
  isChosen,
  isCounted,
  isTicked,
  hasTick,
  onTick,
}: RulerMarkProps): ReactNode {
  return (
    <g className="peg" data-rung={index}>
      <title>{`h = ${stepSizeText(grid.h)}, ${grid.steps} steps${grid.divides ? '' : '; the requested h does not divide the interval'}`}</title>
      <line x1={x} x2={x} y1={42} y2={AXIS} className="tick" />
      {hasTick && (
        <g
          onPointerDown={(event) => {
            event.stopPropagation();
            onTick();
          }}
          onDoubleClick={(event) => event.stopPropagation()}
        >
          <title>Draw this step size together with the chosen one (t)</title>
          <TargetArea left={x - TARGET / 2} top={0} />
          <rect
            x={x - 4}
            y={3}
            width={8}
            height={8}
            rx={1.5}
            className={isTicked ? 'rung-tick ticked' : 'rung-tick'}
          />
        </g>
      )}
      <circle
        cx={x}
        cy={42}
        r={isChosen ? 6 : 4.5}
        className={isChosen ? 'knob chosen' : grid.divides ? 'knob' : 'knob off'}
      />
      {isCounted && (
        <text x={x} y={30} className={isChosen ? 'count chosen' : 'count'}>
          {grid.steps}
        </text>
      )}
    </g>
  );
}

/** The chosen step size: a handle between the pegs, a sign that removes it on one, and its size below the axis. */
export function ChosenMark({
  layout: { now, order, here, written },
  onRemove,
}: {
  readonly layout: RulerLayout;
  readonly onRemove: (rung: number) => void;
}): ReactNode {
  const { rung } = now;
  return (
    <>
      {rung === null && (
        <g>
          <path d={`M${here} ${AXIS}L${here - 6} 54V38H${here + 6}V54Z`} className="handle" />
          <text x={here} y={30} className="count chosen">
            {now.steps}
          </text>
        </g>
      )}
      {rung !== null && order.length > 1 && (
        <g
          className="remove-rung"
          onPointerDown={(event) => {
            event.stopPropagation();
            onRemove(rung);
          }}
        >
          <title>Remove this h (Delete)</title>
          <TargetArea left={here + 12} top={8} />
          <text x={here + 18} y={25}>
            ×
          </text>
        </g>
      )}
      <text x={here} y={AXIS + 14} className="size chosen">
        {written}
      </text>
    </>
  );
}
