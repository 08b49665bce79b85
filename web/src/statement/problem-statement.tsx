import { Button } from 'antd';
import { problemHints, problemTex, type Problem } from '@schritt/core/notation';
import { type ReactNode, useMemo, useState } from 'react';
import { LazyEditor } from '../editor/lazy-editor.tsx';
import { Formula } from '../math/formula.tsx';
import { Tex } from '../math/tex.tsx';
import type { Read } from '../desk/use-good-study.ts';
import './statement.css';

/** A problem as it is set on a board. */
export function ProblemTypeset({ problem }: { readonly problem: Problem }): ReactNode {
  const lines = useMemo(() => {
    const { equations, initial, interval, exact, parameters, conserved, given } = problemTex(problem);
    return { first: [...equations, ...given], initial, interval, rest: exact, parameters, conserved };
  }, [problem]);
  const { first, initial, interval, rest, parameters, conserved } = lines;
  return (
    <div className="typeset">
      {[...first, ...initial, interval, ...rest, ...conserved].map((line) => (
        <Formula key={line} tex={line} />
      ))}
      {parameters.length > 0 && (
        <div className="formula quiet">
          {parameters.map((line, i) => (
            <span key={line}>
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
}

/** The problem of a study: typeset, and as its text in the same place after a click. */
export function ProblemStatement({ read, text, onChange }: ProblemStatementProps): ReactNode {
  const [open, setOpen] = useState(read.good === null);
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
          <Button size="small" type="text" onClick={() => setOpen(true)} aria-label="Edit the problem">
            Edit
          </Button>
        )}
      </div>
      {open && (
        <LazyEditor
          label="the problem"
          value={text}
          errors={errors}
          hints={hints}
          onChange={onChange}
          onDone={() => setOpen(false)}
          autoFocus
        />
      )}
      {read.good !== null && !open && (
        <div className="click-to-edit" onClick={() => setOpen(true)} title="Click to edit the text">
          <ProblemTypeset problem={read.good.value} />
        </div>
      )}
      {errors.length > 0 && read.good !== null && (
        <p className="wrong stale" role="status">
          {open
            ? 'Numbers and pictures are still those of the last good text.'
            : `The text has ${errors.length === 1 ? 'an error' : `${errors.length} errors`}; shown is the last good one.`}
        </p>
      )}
    </section>
  );
}
