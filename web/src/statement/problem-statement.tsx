import { problemHints, problemPlaces, problemTex, type Problem } from '@schritt/core/notation';
import { Button } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { LazyEditor } from '../editor/lazy-editor.tsx';
import { Formula } from '../math/formula.tsx';
import { Tex } from '../math/tex.tsx';
import { type Read, wasNeverGood } from '../state/use-good-study.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import './statement.css';

/** A problem as it is set on a board. */
export function ProblemTypeset({
  problem,
  onOpen,
}: {
  readonly problem: Problem;
  /** Receives the place in the text of the formula that was clicked. */
  readonly onOpen?: (caret: number) => void;
}): ReactNode {
  const { lines, parameters, places } = useMemo(() => {
    const tex = problemTex(problem);
    const { equations, given, initial, interval, exact, conserved } = tex;
    return {
      lines: [...equations, ...given, ...initial, interval, ...exact, ...conserved],
      parameters: tex.parameters,
      places: problemPlaces(problem),
    };
  }, [problem]);
  const open = (line: string): void => onOpen?.(places.get(line) ?? 0);
  return (
    <div className="typeset">
      {lines.map((line) => (
        <div key={line} onClick={() => open(line)}>
          <Formula tex={line} />
        </div>
      ))}
      {parameters.length > 0 && (
        <div className="formula quiet">
          {parameters.map((line, i) => (
            <span key={line} onClick={() => open(line)}>
              {i > 0 && ', '}
              <Tex tex={line} />
            </span>
          ))}
        </div>
      )}
    </div>
  );
}

interface ProblemStatementProps {
  readonly read: Read<Problem>;
  readonly text: string;
  readonly onChange: (text: string) => void;
  /** What is under the problem. */
  readonly children?: ReactNode;
  /** What can be taken instead, while the text is open. */
  readonly instead?: ReactNode;
}

/** The problem of a study: typeset, and as its text in the same place after a click. */
export function ProblemStatement({
  read,
  text,
  onChange,
  children,
  instead,
}: ProblemStatementProps): ReactNode {
  const [open, setOpen] = useState(wasNeverGood(read));
  const [caret, setCaret] = useState(0);
  const openAt = (place: number): void => {
    setCaret(place);
    setOpen(true);
  };
  const errors = read.now.ok ? [] : read.now.errors;
  const good = read.good?.value ?? null;
  const hints = useMemo(() => problemHints(good), [good]);
  return (
    <section className="statement" aria-label="Problem">
      <div className="statement-head">
        <h2 className="label">Problem</h2>
        {open ? (
          <Button size="small" type="text" onClick={() => setOpen(false)} disabled={read.good === null}>
            Done
          </Button>
        ) : (
          <Button size="small" type="text" onClick={() => openAt(0)} aria-label="Edit the problem">
            Edit
          </Button>
        )}
      </div>
      {open && (
        <LazyEditor
          of="problem"
          label="the problem"
          value={text}
          errors={errors}
          hints={hints}
          onChange={onChange}
          onDone={() => setOpen(false)}
          autoFocus
          caret={caret}
        />
      )}
      {open && instead}
      {read.good !== null && !open && (
        <div className="click-to-edit" title="Click to edit the text there">
          <ErrorBoundary what="This problem" of={read.good.text}>
            <ProblemTypeset problem={read.good.value} onOpen={openAt} />
          </ErrorBoundary>
        </div>
      )}
      {errors.length > 0 && read.good !== null && (
        <p className="wrong stale" role="status">
          {open
            ? 'Showing results of the last valid text.'
            : `The text has ${errors.length === 1 ? 'an error' : `${errors.length} errors`}; showing the last valid one.`}
        </p>
      )}
      {children}
    </section>
  );
}
