import { stepExpression, stepSizeText } from '@schritt/core/notation';
import {
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
  type ReactNode,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import { useDesk } from '../desk/desk.ts';
import { withoutRungAt, withRungOf } from '../desk/working-study.ts';
import { StepLimits } from './step-limits.tsx';
import { dividingSizes, labelled, placeOfSize, roundSizes, rulerScale, sizeAtPlace } from './scale.ts';
import './step-ruler.css';

const AXIS = 66;
/** Pixels that a character of a label takes, about. */
const CHARACTER = 6.6;
/** Pixels within which the handle falls on a peg. */
const NEAR = 7;

/**
 * The ladder on a logarithmic scale of h. A peg is chosen by click or with the arrow keys; the handle is dragged
 * along to any h that divides the interval, or moved by one step of N with Shift and an arrow. h grows to the right.
 * A double click makes a rung, Delete takes the chosen one away, and a tick above a peg draws its run with the others.
 */
export function StepRuler(): ReactNode {
  const { chosen, problem, view, setView, edit, limits, methods } = useDesk(
    'chosen',
    'problem',
    'view',
    'setView',
    'edit',
    'limits',
    'methods',
  );
  const { rungs, now, choose, chooseSteps, addAsRung } = chosen;
  const length = problem === null ? 1 : problem.end - problem.start;
  const host = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(960);
  const [dragging, setDragging] = useState(false);
  useLayoutEffect(() => {
    const element = host.current;
    if (element === null) return undefined;
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const pegs = rungs.flatMap((rung, index) => (rung.ok ? [{ index, grid: rung.grid }] : []));
  const order = [...pegs].sort((a, b) => a.grid.h - b.grid.h);
  if (order.length === 0 || now === null)
    return (
      <div className="step-ruler" ref={host}>
        <p className="quiet">
          {problem === null
            ? 'The problem has errors; nothing can be computed yet.'
            : 'No step sizes yet. Add one on the left.'}
        </p>
      </div>
    );

  const scale = rulerScale(
    order.map((peg) => peg.grid.h),
    14,
    width - 30,
  );
  const coarser = order.findIndex(({ grid }) => grid.h > now.h * (1 + 1e-9));
  const finer = order.findLastIndex(({ grid }) => grid.h < now.h * (1 - 1e-9));
  const toSteps = (steps: number): void => {
    const peg = order.find(({ grid }) => grid.steps === steps);
    if (peg !== undefined) choose(peg.index);
    else if (steps >= 1 && steps !== now.steps) chooseSteps(steps);
  };
  const tick = (rung: number): void => {
    const { ticked } = view;
    const next = ticked.includes(rung) ? ticked.filter((one) => one !== rung) : [...ticked, rung];
    setView({ ticked: next.sort((a, b) => a - b) });
  };
  const remove = (rung: number): void => {
    const left = view.ticked.flatMap((one) => (one === rung ? [] : [one > rung ? one - 1 : one]));
    setView({ ticked: left });
    edit('ladder', (study) => withoutRungAt(study, rung));
  };
  const press = (event: KeyboardEvent): void => {
    const { rung } = now;
    if ((event.key === 'Delete' || event.key === 'Backspace') && rung !== null && order.length > 1)
      remove(rung);
    else if ((event.key === 'Enter' || event.key === 'Insert') && addAsRung !== null) addAsRung();
    else if (event.key === 't' && rung !== null) tick(rung);
    else {
      move(event);
      return;
    }
    event.preventDefault();
  };
  const move = (event: KeyboardEvent): void => {
    const grows = event.key === 'ArrowRight' || event.key === 'ArrowUp';
    if (!grows && !['ArrowLeft', 'ArrowDown', 'Home', 'End'].includes(event.key)) return;
    event.preventDefault();
    if (event.shiftKey && event.key.startsWith('Arrow')) {
      toSteps(now.steps + (grows ? -1 : 1));
      return;
    }
    const goal = event.key === 'Home' ? 0 : event.key === 'End' ? order.length - 1 : grows ? coarser : finer;
    const peg = order[goal];
    if (peg !== undefined) choose(peg.index);
  };
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const near = order.find(({ grid }) => Math.abs(placeOfSize(scale, grid.h) - x) <= NEAR);
    if (near !== undefined) {
      if (near.index !== now.rung) choose(near.index);
      return;
    }
    toSteps(Math.max(1, Math.round(length / sizeAtPlace(scale, x))));
  };
  const here = placeOfSize(scale, now.h);
  const add = (event: MouseEvent<SVGSVGElement>): void => {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    if (order.some(({ grid }) => Math.abs(placeOfSize(scale, grid.h) - x) <= NEAR)) return;
    const steps = Math.max(1, Math.round(length / sizeAtPlace(scale, x)));
    if (order.some(({ grid }) => grid.steps === steps)) return;
    edit('ladder', (study) => withRungOf(study, steps, length));
  };
  const part =
    problem === null || chosen.grid === null || chosen.grid.shorter !== null || !chosen.grid.divides
      ? null
      : stepExpression(problem, now.steps);
  const written = part?.isSymbolic === true ? part.text : stepSizeText(now.h);
  const widthOf = (text: string): number => CHARACTER * text.length;
  const round = roundSizes(scale);
  // the chosen one is labelled in any case, the others where there is room
  const sizes = labelled(
    [here, ...round.map((h) => placeOfSize(scale, h))],
    [widthOf(written), ...round.map((h) => widthOf(stepSizeText(h)))],
  ).slice(1);
  const chosenFirst = [...order].sort((a, b) => Number(b.index === now.rung) - Number(a.index === now.rung));
  const counts = labelled(
    [...(now.rung === null ? [here] : []), ...chosenFirst.map(({ grid }) => placeOfSize(scale, grid.h))],
    [...(now.rung === null ? [now.steps] : []), ...chosenFirst.map(({ grid }) => grid.steps)].map(
      (steps) => widthOf(String(steps)) + 4,
    ),
  ).slice(now.rung === null ? 1 : 0);
  const isCounted = new Set(chosenFirst.filter((_, i) => counts[i] === true).map(({ index }) => index));

  return (
    <div className="step-ruler" ref={host}>
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
        {round.map((h, i) => {
          const x = placeOfSize(scale, h);
          return (
            <g key={h}>
              <line x1={x} x2={x} y1={AXIS - 8} y2={AXIS} className="tick" />
              {sizes[i] === true && (
                <text x={x} y={AXIS + 14} className="size">
                  {stepSizeText(h)}
                </text>
              )}
            </g>
          );
        })}
        {order.map(({ index, grid }) => {
          const x = placeOfSize(scale, grid.h);
          const isChosen = index === now.rung;
          return (
            <g key={index} className="peg" data-rung={index}>
              <title>{`h = ${stepSizeText(grid.h)}, ${grid.steps} steps${grid.divides ? '' : '; the requested h does not divide the interval'}`}</title>
              <line x1={x} x2={x} y1={42} y2={AXIS} className="tick" />
              {(order.length < 16 || view.ticked.includes(index)) && (
                <rect
                  x={x - 4}
                  y={3}
                  width={8}
                  height={8}
                  rx={1.5}
                  className={view.ticked.includes(index) ? 'rung-tick ticked' : 'rung-tick'}
                  onPointerDown={(event) => {
                    event.stopPropagation();
                    tick(index);
                  }}
                  onDoubleClick={(event) => event.stopPropagation()}
                >
                  <title>Draw this step size together with the chosen one (t)</title>
                </rect>
              )}
              <circle
                cx={x}
                cy={42}
                r={isChosen ? 6 : 4.5}
                className={isChosen ? 'knob chosen' : grid.divides ? 'knob' : 'knob off'}
              />
              {isCounted.has(index) && (
                <text x={x} y={30} className={isChosen ? 'count chosen' : 'count'}>
                  {grid.steps}
                </text>
              )}
            </g>
          );
        })}
        {now.rung === null && (
          <g>
            <path d={`M${here} ${AXIS}L${here - 6} 54V38H${here + 6}V54Z`} className="handle" />
            <text x={here} y={30} className="count chosen">
              {now.steps}
            </text>
          </g>
        )}
        {now.rung !== null && order.length > 1 && (
          <text
            x={here + 16}
            y={25}
            className="remove-rung"
            onPointerDown={(event) => {
              event.stopPropagation();
              if (now.rung !== null) remove(now.rung);
            }}
          >
            ×<title>Remove this h (Delete)</title>
          </text>
        )}
        <text x={here} y={AXIS + 14} className="size chosen">
          {written}
        </text>
      </svg>
    </div>
  );
}
