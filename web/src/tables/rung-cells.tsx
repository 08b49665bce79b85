import {
  count,
  exponential,
  fixed,
  general,
  primed,
  short,
  stepSizeText,
  withMinus,
} from '@schritt/core/notation';
import { type ErrorChoice, evaluations, leftOutText, type RungResult } from '@schritt/core/study';
import type { ReactNode } from 'react';
import { PowerNumber } from '../math/power-number.tsx';

/** What the table of rungs shows of every method. */
export type RungView = 'errors' | 'differences' | 'cost';

export const HEADINGS: Readonly<Record<RungView, readonly string[]>> = {
  errors: ['error', 'ratio', 'order'],
  differences: ['order', 'extrapolated', 'estimate'],
  cost: ['evaluations', 'a step', 'ms'],
};

/** Milliseconds below which a time says more of the clock than of the run. */
const MEASURED = 5;

/** What the first column is called where errors are told as digits or places. */
export function errorHeading(scale: ErrorChoice['scale']): string {
  return scale === 'digits' ? 'digits' : scale === 'places' ? 'places' : 'error';
}

/** Ratio and order to as many digits as mean something. */
function figure(value: number | null): string {
  if (value === null) return '';
  if (Math.abs(value) < 0.005) return '0.00';
  if (Math.abs(value) >= 1e5) return exponential(value, 1).replace('e+', 'e');
  return withMinus(fixed(value, Math.abs(value) >= 100 ? 0 : 2));
}

function ErrorText({
  rung,
  scale,
  independent,
}: {
  readonly rung: RungResult;
  readonly independent: string;
  readonly scale: ErrorChoice['scale'];
}): ReactNode {
  if (rung.stopped !== null && rung.error === null) {
    const { step, t, stage, why } = rung.stopped;
    if (step === 0)
      return (
        <span className="wrong" title={why}>
          cannot run
        </span>
      );
    return (
      <span className="wrong" title={`step ${step} at ${independent} = ${t}, ${stage}: ${why}`}>
        left, {independent} = {short(t, 3)}
      </span>
    );
  }
  if (rung.error === null) return <span className="quiet">–</span>;
  if (scale === 'digits') return <>{rung.digits === null ? '–' : withMinus(fixed(rung.digits, 1))}</>;
  if (scale === 'places') return <>{rung.places ?? '–'}</>;
  return <PowerNumber value={rung.error} />;
}

/** What a rung's number is explained by when it is pointed at. */
function explanation(rung: RungResult): string | undefined {
  const parts = [rung.leftOut === null ? null : leftOutText(rung.leftOut), rung.remark];
  const text = parts.filter((part) => part !== null).join('; ');
  return text === '' ? undefined : text;
}

interface RungCellsProps {
  readonly rung: RungResult;
  /** The rung before, from which ratio and order go; null for the first. */
  readonly previous: RungResult | null;
  readonly view: RungView;
  readonly scale: ErrorChoice['scale'];
  readonly independent: string;
  readonly title: string;
  readonly color: string;
  readonly pointed: boolean;
  /** Whether some method of the study is implicit, so that its Newton iterations are counted. */
  readonly implicit: boolean;
  readonly onStrike: () => void;
  readonly onWindow: () => void;
}

/** The cells of one method on one rung. */
export function RungCells(props: RungCellsProps): ReactNode {
  const { rung, previous, view, scale, independent, title, color, pointed, implicit, onStrike, onWindow } =
    props;
  const isStruck = rung.leftOut?.kind === 'struck';
  const kind = [
    rung.leftOut === null ? '' : 'left-out',
    isStruck ? 'struck' : '',
    pointed ? 'pointed' : '',
  ].join(' ');
  // an order to or from a rung that is left out is as quiet as that rung
  const between = previous !== null && previous.leftOut !== null ? `${kind} left-out` : kind;
  const h = `h = ${stepSizeText(rung.h)}`;
  if (view === 'differences') {
    const three = rung.extrapolated;
    return (
      <>
        <td className={`first ${kind}`}>{three === null ? '' : figure(three.order)}</td>
        <td className={kind} title={three?.values.slice(0, 20).join(', ')}>
          {three === null ? '' : short(three.values[0] ?? NaN, 8)}
        </td>
        <td className={kind}>{three === null ? '' : <PowerNumber value={three.error} digits={2} />}</td>
      </>
    );
  }
  if (view === 'cost') {
    const { f, derivatives, newton, seconds } = rung.cost;
    const each = [`f ${count(f)}`, ...derivatives.map((n, i) => `${primed('f', i + 1)} ${count(n)}`)];
    return (
      <>
        <td className={`first ${kind}`} title={each.join(', ')}>
          {count(evaluations(rung.cost))}
        </td>
        <td className={kind}>
          {implicit ? (newton === 0 ? '' : count(newton)) : general(evaluations(rung.cost) / rung.steps, 3)}
        </td>
        <td className={kind} title={`${general(1000 * seconds, 3)} ms`}>
          {1000 * seconds < MEASURED ? '' : general(1000 * seconds, 2)}
        </td>
      </>
    );
  }
  return (
    <>
      <td className={`first ${kind}`} title={explanation(rung)}>
        <button
          type="button"
          className="window-bar"
          style={{ color }}
          aria-label={`Move the window of ${title} to ${h}`}
          title="Move the nearer end of the window here"
          onClick={(event) => {
            event.stopPropagation();
            onWindow();
          }}
        />
        <ErrorText rung={rung} scale={scale} independent={independent} />
        <button
          type="button"
          className="strike-button"
          aria-label={`${isStruck ? 'Count' : 'Strike out'} ${title} at ${h}`}
          aria-pressed={isStruck}
          title={isStruck ? 'Count this rung again' : 'Strike this rung out'}
          onClick={(event) => {
            event.stopPropagation();
            onStrike();
          }}
        >
          <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
            <path d="M1 5.5H10M3 2.2 8 8.8" stroke="currentColor" strokeWidth="1.4" fill="none" />
          </svg>
        </button>
      </td>
      <td className={between}>{figure(rung.ratio)}</td>
      <td className={`order ${between}`}>{figure(rung.order)}</td>
    </>
  );
}
