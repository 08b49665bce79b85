import { type Rung, stepSizeText } from '@schritt/core';
import { type KeyboardEvent, type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { dividingSizes, placeOfSize, roundSizes, rulerScale } from './scale.ts';
import './step-ruler.css';

interface StepRulerProps {
  readonly rungs: readonly Rung[];
  /** Length of the interval. */
  readonly length: number;
  /** The chosen rung. */
  readonly chosen: number;
  readonly onChoose: (rung: number) => void;
}

const AXIS = 66;

/** The ladder on a logarithmic scale of h; a peg is chosen by click, or with the arrow keys. */
export function StepRuler({ rungs, length, chosen, onChoose }: StepRulerProps): ReactNode {
  const host = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(960);
  useLayoutEffect(() => {
    const element = host.current;
    if (element === null) return undefined;
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const pegs = rungs.flatMap((rung, index) => (rung.ok ? [{ index, grid: rung.grid }] : []));
  const order = [...pegs].sort((a, b) => b.grid.h - a.grid.h);
  const now = pegs.find((peg) => peg.index === chosen);
  if (order.length === 0 || now === undefined)
    return (
      <div className="step-ruler" ref={host}>
        <p className="quiet">No step sizes yet: add one at the left.</p>
      </div>
    );

  const scale = rulerScale(
    order.map((peg) => peg.grid.h),
    14,
    width - 30,
  );
  const at = order.indexOf(now);
  const move = (event: KeyboardEvent): void => {
    const goal = {
      ArrowRight: at + 1,
      ArrowUp: at + 1,
      ArrowLeft: at - 1,
      ArrowDown: at - 1,
      Home: 0,
      End: order.length - 1,
    }[event.key];
    const peg = goal === undefined ? undefined : order[goal];
    if (peg === undefined) return;
    event.preventDefault();
    onChoose(peg.index);
  };
  const here = placeOfSize(scale, now.grid.h);
  const apart = (x: number): boolean => Math.abs(x - here) > 36;

  return (
    <div className="step-ruler" ref={host}>
      <svg
        width={width}
        height={87}
        role="slider"
        tabIndex={0}
        aria-label="Step size"
        aria-valuemin={0}
        aria-valuemax={order.length - 1}
        aria-valuenow={at}
        aria-valuetext={`h = ${stepSizeText(now.grid.h)}, ${now.grid.steps} steps`}
        onKeyDown={move}
      >
        <rect x={here - 23} y={14} width={46} height={66} rx={2} className="chosen-band" />
        <line x1={0} x2={width - 10} y1={AXIS} y2={AXIS} className="axis" />
        {dividingSizes(scale, length).map((h) => (
          <line
            key={h}
            x1={placeOfSize(scale, h)}
            x2={placeOfSize(scale, h)}
            y1={AXIS - 4}
            y2={AXIS}
            className="fine-tick"
          />
        ))}
        {roundSizes(scale).map((h) => {
          const x = placeOfSize(scale, h);
          return (
            <g key={h}>
              <line x1={x} x2={x} y1={AXIS - 8} y2={AXIS} className="tick" />
              {apart(x) && (
                <text x={x} y={AXIS + 14} className="size">
                  {stepSizeText(h)}
                </text>
              )}
            </g>
          );
        })}
        {order.map(({ index, grid }) => {
          const x = placeOfSize(scale, grid.h);
          const isChosen = index === chosen;
          return (
            <g key={index} className="peg" onClick={() => onChoose(index)} data-rung={index}>
              <title>{`h = ${stepSizeText(grid.h)}, ${grid.steps} steps${grid.divides ? '' : '; the step asked for does not divide the interval'}`}</title>
              <rect x={x - 14} y={12} width={28} height={56} fill="transparent" />
              <line x1={x} x2={x} y1={42} y2={AXIS} className="tick" />
              <circle
                cx={x}
                cy={42}
                r={isChosen ? 6 : 4.5}
                className={isChosen ? 'knob chosen' : grid.divides ? 'knob' : 'knob off'}
              />
              {(isChosen || apart(x)) && (
                <text x={x} y={30} className={isChosen ? 'count chosen' : 'count'}>
                  {grid.steps}
                </text>
              )}
            </g>
          );
        })}
        <text x={here} y={AXIS + 14} className="size chosen">
          {stepSizeText(now.grid.h)}
        </text>
      </svg>
    </div>
  );
}
