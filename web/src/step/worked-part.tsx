import { short, withMinus } from '@schritt/core/text';
import type { WorkedLine } from '@schritt/core/study';
import { Button, Select } from 'antd';
import { type ReactNode, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useWorkedStep } from '../state/use-worked-step.ts';
import { UnderWay } from '../frame/under-way.tsx';
import { Formula } from '../math/formula.tsx';
import { ColumnNumber, errorColumn } from '../math/number-column.tsx';
import { PowerNumber } from '../math/power-number.tsx';
import { Mark } from '../plots/mark.tsx';
import './worked-part.css';

/** Significant digits of the exact value, those of the values in the formulas. */
const EXACT_DIGITS = 7;

/** A residual above this is reported: below it is rounding. */
const CLEAR = 1e-15;

/** A line as TeX: what it gives, the formula, the numbers, the value, with signs of equality between. */
export function lineTex({ tex }: WorkedLine): string {
  return tex.join(' = ');
}

/** The whole step as TeX, one line below the other, for a paper. */
export function stepTex(lines: readonly WorkedLine[]): string {
  const rows = lines.map(({ tex: [first = '', ...rest] }) => `${first} &= ${rest.join(' = ')}`);
  return `\\begin{aligned}\n${rows.join(' \\\\\n')}\n\\end{aligned}`;
}

/** The exact value behind a step, and the error of the value there. */
function ExactValue({ exact, value }: { readonly exact: number; readonly value: number }): ReactNode {
  const error = value - exact;
  return (
    <p className="quiet">
      exact: <span title={String(exact)}>{withMinus(short(exact, EXACT_DIGITS))}</span>, error{' '}
      <ColumnNumber value={error} column={errorColumn([error])} />
    </p>
  );
}

/** The chosen step computed, line by line: formula, numbers substituted, value. */
export function WorkedPart(): ReactNode {
  const { good, methods, view, setView, played, setPlayed } = useStudyState(
    'good',
    'methods',
    'view',
    'setView',
    'played',
    'setPlayed',
  );
  const step = useWorkedStep();
  const [copied, setCopied] = useState(false);
  const { value } = step;
  const lines = value?.worked.lines ?? [];
  const shown = played === null ? lines : lines.slice(0, played);
  const last = (value?.steps ?? 1) - 1;
  const go = (n: number): void => {
    setPlayed(null);
    setView({ n: Math.min(last, Math.max(0, n)) });
  };
  const isWhole = played === null || played >= lines.length;
  return (
    <aside className="sentences worked" aria-label="Worked step">
      <div className="worked-head">
        <Mark index={methods.placeOf(good.keys[value?.method ?? view.method] ?? '')} />
        <Select
          size="small"
          popupMatchSelectWidth={false}
          variant="borderless"
          aria-label="Method whose step is worked out"
          value={Math.min(view.method, Math.max(0, good.keys.length - 1))}
          options={good.keys.map((key, place) => ({ value: place, label: methods.titleOf(key) }))}
          onChange={(method) => setView({ method })}
        />
        <span className="quiet">
          step {view.n} → {view.n + 1}
        </span>
        <span className="worked-buttons">
          <Button size="small" type="text" disabled={view.n <= 0} onClick={() => go(view.n - 1)} title="← ">
            ‹ Previous
          </Button>
          <Button size="small" type="text" disabled={view.n >= last} onClick={() => go(view.n + 1)} title="→">
            Next ›
          </Button>
        </span>
      </div>
      <UnderWay computed={step} what="the step" />
      {step.why !== null && <p className="wrong">{step.why}</p>}
      {value?.worked.byStarter === true && (
        <p>The first steps of this multistep method are taken by its starting method.</p>
      )}
      {shown.map((line, i) => (
        <div key={i} className={i === shown.length - 1 && !isWhole ? 'worked-line now' : 'worked-line'}>
          <Formula tex={lineTex(line)} />
          {line.solved && line.residual !== null && line.residual > CLEAR && (
            <span className="quiet">
              by Newton’s method, residual <PowerNumber value={line.residual} />
            </span>
          )}
        </div>
      ))}
      {value !== null && isWhole && value.worked.exact[1] !== null && (
        <ExactValue exact={value.worked.exact[1]} value={value.worked.to} />
      )}
      {lines.length > 0 && (
        <div className="worked-buttons">
          <Button size="small" onClick={() => setPlayed(played === null || isWhole ? 1 : played + 1)}>
            {played === null ? 'Play' : isWhole ? 'Again' : 'Next line'}
          </Button>
          {played !== null && (
            <Button size="small" onClick={() => setPlayed(null)}>
              All lines
            </Button>
          )}
          <Button
            size="small"
            onBlur={() => setCopied(false)}
            onClick={() => void navigator.clipboard.writeText(stepTex(lines)).then(() => setCopied(true))}
          >
            {copied ? 'Copied' : 'Copy as TeX'}
          </Button>
        </div>
      )}
    </aside>
  );
}
