import {
  count,
  exponential,
  fixed,
  general,
  primed,
  short,
  stepSizeText,
  withMinus,
} from '@schritt/core/text';
import type { RungColumn } from '@schritt/core/document';
import {
  type ErrorChoice,
  evaluations,
  knownRounding,
  leftOutText,
  type RungResult,
} from '@schritt/core/study';
import type { ReactNode } from 'react';
import { ColumnNumber, type NumberColumn } from '../math/number-column.tsx';
import { PowerNumber } from '../math/power-number.tsx';

/** Columns that belong together. */
export const RUNG_VIEWS: readonly {
  readonly value: string;
  readonly label: string;
  readonly columns: readonly RungColumn[];
}[] = [
  { value: 'errors', label: 'Errors', columns: ['error', 'ratio', 'order'] },
  {
    value: 'differences',
    label: 'No exact solution',
    columns: ['order of three', 'extrapolated', 'estimate'],
  },
  { value: 'cost', label: 'Work', columns: ['evaluations', 'per step', 'Newton', 'seconds'] },
];

/** Milliseconds below which a time says more of the clock than of the run. */
const MEASURED = 5;

/** Which values at the end are shown: of the component at a place, to so many digits; null for all digits. */
export interface ValueChoice {
  readonly place: number;
  readonly name: string;
  readonly digits: number | null;
}

/** What headings depend on beside their column. */
interface HeadingChoice {
  readonly scale: ErrorChoice['scale'];
  readonly value: ValueChoice;
}

/** What a column is called above its numbers. */
export function rungHeading(column: RungColumn, { scale, value }: HeadingChoice): string {
  switch (column) {
    case 'value':
      return `${value.name}[N]`;
    case 'error':
      return scale === 'digits' ? 'digits' : scale === 'places' ? 'places' : 'error';
    case 'order of three':
      return 'order';
    case 'seconds':
      return 'ms';
    default:
      return column;
  }
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
  errors,
}: Pick<RungCellsProps, 'rung' | 'scale' | 'independent' | 'errors'>): ReactNode {
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
        stopped, {independent} = {short(t, 3)}
      </span>
    );
  }
  if (rung.error === null) return <span className="quiet">–</span>;
  if (scale === 'digits') return <>{rung.digits === null ? '–' : withMinus(fixed(rung.digits, 1))}</>;
  if (scale === 'places') return <>{rung.places ?? '–'}</>;
  return <ColumnNumber value={rung.error} column={errors} />;
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
  readonly columns: readonly RungColumn[];
  readonly value: ValueChoice;
  readonly scale: ErrorChoice['scale'];
  /** How the errors of the method are written. */
  readonly errors: NumberColumn;
  readonly independent: string;
  readonly title: string;
  readonly color: string;
  readonly pointed: boolean;
  /** Whether the rung is the first or the last of the window. */
  readonly windowEnd: boolean;
  readonly onStrike: () => void;
  readonly onWindow: () => void;
}

interface RowCell {
  readonly content: ReactNode;
  readonly title?: string | undefined;
  /** Whether it goes from the rung before to this one. */
  readonly between?: boolean;
}

function numberCell(value: number | null, between: boolean): RowCell {
  if (value === null) return { content: '', between };
  return { content: <span data-full={String(value)}>{figure(value)}</span>, title: String(value), between };
}

/** The value at the end of a run; none where the run stopped before. */
function valueCell({ values, decimals, stopped, t }: RungResult, { place, digits }: ValueChoice): RowCell {
  const value = stopped === null ? values[place] : undefined;
  if (value === undefined) return { content: '' };
  const full = decimals?.[place] ?? String(value);
  const text = digits === null ? full : short(value, digits);
  return {
    content: <span data-full={full}>{withMinus(text)}</span>,
    title: `${full} at ${short(t, 6)}`,
  };
}

/** What is in a column of a rung. */
function cellOf(column: RungColumn, props: RungCellsProps): RowCell {
  const { rung } = props;
  const { f, derivatives, newton, seconds } = rung.cost;
  const three = rung.extrapolated;
  const rounding = knownRounding(rung.rounding);
  switch (column) {
    case 'value':
      return valueCell(rung, props.value);
    case 'error':
      return {
        content: <ErrorText {...props} />,
        title: explanation(rung),
      };
    case 'ratio':
      return numberCell(rung.ratio, true);
    case 'order':
      return numberCell(rung.order, true);
    case 'digits':
      return { content: rung.digits === null ? '' : withMinus(fixed(rung.digits, 1)) };
    case 'rounding':
      return {
        content: rounding === null ? '' : <PowerNumber value={rounding} digits={2} />,
        title: 'what rounding makes of the error',
      };
    case 'order of three':
      return numberCell(three?.order ?? null, false);
    case 'extrapolated': {
      const value = three?.values[0];
      if (value === undefined) return { content: '' };
      return {
        content: <span data-full={String(value)}>{short(value, 8)}</span>,
        title: three?.values.slice(0, 20).join(', '),
      };
    }
    case 'estimate':
      return { content: three === null ? '' : <PowerNumber value={three.error} digits={2} /> };
    case 'evaluations': {
      const each = [`f ${count(f)}`, ...derivatives.map((n, i) => `${primed('f', i + 1)} ${count(n)}`)];
      return { content: count(evaluations(rung.cost)), title: each.join(', ') };
    }
    case 'per step':
      return { content: general(evaluations(rung.cost) / rung.steps, 3) };
    case 'Newton':
      return { content: newton === 0 ? '' : count(newton) };
    case 'seconds':
      return {
        content: 1000 * seconds < MEASURED ? '' : general(1000 * seconds, 2),
        title: `${general(1000 * seconds, 3)} ms`,
      };
  }
}

/** The window's bar and the button that strikes a rung out, in its first cell. */
function RungButtons({ rung, title, color, windowEnd, onStrike, onWindow }: RungCellsProps): ReactNode {
  const isExcluded = rung.leftOut?.kind === 'struck';
  const h = `h = ${stepSizeText(rung.h)}`;
  return (
    <>
      <button
        type="button"
        tabIndex={-1}
        className={windowEnd ? 'window-bar window-end' : 'window-bar'}
        style={{ color }}
        aria-label={`Set the fit range of ${title} to ${h}`}
        title={
          windowEnd
            ? 'End of the fit range: drag it, or click to exclude this step size'
            : 'Set the nearer end of the fit range here'
        }
        onPointerDown={(event) => event.currentTarget.releasePointerCapture(event.pointerId)}
        onPointerEnter={(event) => {
          if (event.buttons === 1) onWindow();
        }}
        onClick={(event) => {
          event.stopPropagation();
          onWindow();
        }}
      />
      <button
        type="button"
        tabIndex={-1}
        className="strike-button"
        aria-label={`${isExcluded ? 'Include' : 'Exclude'} ${title} at ${h}`}
        aria-pressed={isExcluded}
        title={isExcluded ? 'Include this step size' : 'Exclude this step size'}
        onClick={(event) => {
          event.stopPropagation();
          onStrike();
        }}
      >
        <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
          <path d="M1 5.5H10M3 2.2 8 8.8" stroke="currentColor" strokeWidth="1.4" fill="none" />
        </svg>
      </button>
    </>
  );
}

/** The cells of one method on one rung. */
export function RungCells(props: RungCellsProps): ReactNode {
  const { rung, previous, columns, pointed } = props;
  const kind = [
    rung.leftOut === null ? '' : 'left-out',
    rung.leftOut?.kind === 'struck' ? 'struck' : '',
    pointed ? 'pointed' : '',
  ].join(' ');
  // an order to or from a rung that is left out is as quiet as that rung
  const quietBetween = previous !== null && previous.leftOut !== null ? `${kind} left-out` : kind;
  return columns.map((column, i) => {
    const { content, title, between = false } = cellOf(column, props);
    const own = between ? quietBetween : kind;
    return (
      <td
        key={column}
        className={[i === 0 ? 'first' : '', column === 'order' ? 'order' : '', own].join(' ')}
        title={title}
      >
        {i === 0 && <RungButtons {...props} />}
        {content}
      </td>
    );
  });
}
