import { attempt, count, counted, stepSizeText } from '@schritt/core/text';
import { amountValue, MAX_STEPS } from '@schritt/core/study';
import { Button, Input } from 'antd';
import { type ReactNode, useState } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import type { Depth } from '../state/view.ts';
import './step-head.css';

/** What was typed as a step size, as a number of steps, or why it is none. */
export type StepsTyped =
  { readonly ok: true; readonly steps: number } | { readonly ok: false; readonly why: string };

/** Reads a step size, of the interval that is so long: `0.3`, `h = pi/20`, `N = 40`. */
export function stepsTyped(text: string, length: number): StepsTyped {
  const [, name = 'h', value = ''] = /^\s*(?:([hN])\s*=)?\s*(\S.*?)\s*$/.exec(text) ?? [];
  if (value === '') return { ok: false, why: 'enter h = 0.1 or N = 40' };
  const read = attempt(() => amountValue(value));
  if (!read.ok) return { ok: false, why: read.refusal.message };
  const amount = read.value;
  if (name === 'N' && !(Number.isSafeInteger(amount) && amount >= 1))
    return { ok: false, why: `N must be a positive integer, not ${value}` };
  if (!(amount > 0)) return { ok: false, why: `h must be a positive number, not ${value}` };
  const steps = name === 'N' ? amount : Math.max(1, Math.round(length / amount));
  return steps <= MAX_STEPS
    ? { ok: true, steps }
    : { ok: false, why: `a run has at most ${count(MAX_STEPS)} steps` };
}

/** The step size in large type, to be typed over. */
function StepSize(): ReactNode {
  const { chosen } = useStudyState('chosen');
  const length = useStudyValue(({ problem }) => (problem === null ? 1 : problem.end - problem.start));
  const [draft, setDraft] = useState<string | null>(null);
  const { grid } = chosen;
  if (grid === null) return <h1>h</h1>;
  if (draft === null)
    return (
      <h1>
        <Button
          type="text"
          className="large-step-size"
          title="Enter another step size, or N = 40"
          onClick={() => setDraft(`h = ${stepSizeText(grid.h)}`)}
        >
          {`h = ${stepSizeText(grid.h)}`}
        </Button>
      </h1>
    );
  const typed = stepsTyped(draft, length);
  return (
    <>
      <Input
        autoFocus
        aria-label="Step size, or N = the number of steps"
        value={draft}
        aria-invalid={!typed.ok}
        status={typed.ok ? '' : 'error'}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => {
          if (typed.ok) setDraft(null);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setDraft(null);
          if (event.key !== 'Enter' || !typed.ok) return;
          const rung = chosen.rungs.findIndex((one) => one.ok && one.grid.steps === typed.steps);
          if (rung >= 0) chosen.choose(rung);
          else chosen.chooseSteps(typed.steps);
          setDraft(null);
        }}
      />
      {!typed.ok && (
        <p className="wrong" role="alert">
          {typed.why}
        </p>
      )}
    </>
  );
}

/** The step size of the page, and how deep one is: study, run, step. */
export function StepHead(): ReactNode {
  const { chosen, view, setView } = useStudyState('chosen', 'view', 'setView');
  const { grid, addAsRung, rows } = chosen;
  const steps = grid?.steps ?? 0;
  const n = Math.min(view.n, Math.max(0, steps - 1));
  const path: readonly { readonly depth: Depth; readonly text: string; readonly title: string }[] = [
    {
      depth: 'study',
      text: counted(rows.length, 'step size'),
      title: 'How does the error fall with h? (key 1)',
    },
    {
      depth: 'run',
      text: counted(steps, 'step'),
      title: 'What does this h do? (key 2)',
    },
    { depth: 'step', text: `step ${n} → ${n + 1}`, title: 'What happens in one step? (key 3)' },
  ];
  return (
    <div className="step-now">
      <StepSize />
      {grid !== null && (
        <nav className="depth-path" aria-label="Level">
          {path.map(({ depth, text, title }, i) => (
            <span key={depth}>
              {i > 0 && <span className="quiet"> › </span>}
              <Button
                type="text"
                size="small"
                className="depth"
                aria-current={view.depth === depth ? 'page' : undefined}
                title={title}
                onClick={() => setView({ depth, large: null, beside: null })}
              >
                {text}
              </Button>
            </span>
          ))}
        </nav>
      )}
      {grid !== null &&
        (addAsRung !== null ? (
          <Button type="text" size="small" onClick={addAsRung}>
            Add this h
          </Button>
        ) : grid.divides ? null : (
          <p className="quiet">{stepSizeText(grid.wished)} does not divide the interval</p>
        ))}
    </div>
  );
}
