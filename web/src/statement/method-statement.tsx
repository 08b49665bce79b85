import { counted } from '@schritt/core/text';
import {
  evaluationsPerStep,
  isImplicit,
  type Method,
  methodHints,
  methodLines,
} from '@schritt/core/notation';
import type { ArithmeticFields } from '@schritt/core/document';
import { Button, Input } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { LazyMethodEditor } from '../editor/lazy-editor.tsx';
import { Formula } from '../math/formula.tsx';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { Mark } from '../plots/mark.tsx';
import { type Read, wasNeverGood } from '../state/use-good-study.ts';
import { ArithmeticChoice, arithmeticText } from './arithmetic-choice.tsx';
import './statement.css';

/** A method as it is set on a board. */
export function MethodTypeset({
  method,
  onOpen,
}: {
  readonly method: Method;
  /** Receives the place in the text of the formula that was clicked. */
  readonly onOpen?: (caret: number) => void;
}): ReactNode {
  const lines = useMemo(() => methodLines(method), [method]);
  return (
    <div className="typeset small">
      {lines.map(({ tex, from }, i) => (
        <div key={`${i}${tex}`} onClick={() => onOpen?.(from)}>
          <Formula tex={tex} />
        </div>
      ))}
    </div>
  );
}

interface MethodStatementProps {
  readonly index: number;
  readonly title: string;
  readonly text: string;
  readonly read: Read<Method>;
  /** What is proved of its order, in a few words; null for nothing. */
  readonly proved: string | null;
  readonly startOpen: boolean;
  readonly onTitle: (title: string) => void;
  readonly onText: (text: string) => void;
  readonly onRemove: () => void;
  /** The arithmetic of this method alone. */
  readonly arithmetic: ArithmeticFields;
  readonly onArithmetic: (fields: ArithmeticFields) => void;
  /** Keeps the method in the library; null where there is none to keep it in, or it has errors. */
  readonly onKeep: (() => void) | null;
}

/** A method of a study: its mark and title, its formula typeset, and its text in the same place after a click. */
export function MethodStatement(props: MethodStatementProps): ReactNode {
  const { index, title, text, read, proved, startOpen, onTitle, onText, onRemove, onKeep } = props;
  const { arithmetic, onArithmetic } = props;
  const [open, setOpen] = useState(startOpen || wasNeverGood(read));
  const [caret, setCaret] = useState(0);
  const openAt = (place: number): void => {
    setCaret(place);
    setOpen(true);
  };
  const errors = read.now.ok ? [] : read.now.errors;
  const good = read.good?.value ?? null;
  const hints = useMemo(() => methodHints(good), [good]);
  const own = arithmeticText(arithmetic);
  const cost = read.good === null ? null : evaluationsPerStep(read.good.value);
  return (
    <section className="method-statement" aria-label={`Method ${title}`}>
      <div className="statement-head">
        <Mark index={index} />
        {open ? (
          <Input
            size="small"
            className="title-field"
            value={title}
            maxLength={200}
            aria-label="Title of the method"
            onChange={(event) => onTitle(event.target.value)}
          />
        ) : (
          <h3 className="method-title">{title}</h3>
        )}
        {open ? (
          <>
            {onKeep !== null && (
              <Button size="small" type="text" onClick={onKeep} title="Save this method to the library">
                Save to library
              </Button>
            )}
            <Button size="small" type="text" onClick={onRemove}>
              Remove
            </Button>
            <Button size="small" type="text" onClick={() => setOpen(false)}>
              Done
            </Button>
          </>
        ) : (
          <>
            <Button size="small" type="text" onClick={() => openAt(0)} aria-label={`Edit ${title}`}>
              Edit
            </Button>
          </>
        )}
      </div>
      {!open && (
        <p className="quiet cost">
          {own !== undefined && `${own} · `}
          {proved !== null && `${proved} · `}
          {cost !== null &&
            `${counted(cost, 'f-evaluation')} per ${read.good !== null && isImplicit(read.good.value) ? 'iteration' : 'step'}`}
        </p>
      )}
      {open && (
        <LazyMethodEditor
          label={`the method ${title}`}
          value={text}
          hints={hints}
          reading={read.now}
          onChange={onText}
          onDone={() => setOpen(false)}
          autoFocus
          caret={caret}
        />
      )}
      {open && (
        <ArithmeticChoice
          value={arithmetic}
          ofMethod
          label={`Arithmetic of ${title}`}
          onChange={onArithmetic}
        />
      )}
      {!open && read.good !== null && (
        <div className="click-to-edit" title="Click to edit the text there">
          <ErrorBoundary what="This formula" of={read.good.text}>
            <MethodTypeset method={read.good.value} onOpen={openAt} />
          </ErrorBoundary>
        </div>
      )}
      {!open && errors.length > 0 && (
        <p className="wrong stale" role="status">
          The text has {errors.length === 1 ? 'an error' : `${errors.length} errors`}
          {read.good === null ? ' and is skipped.' : '; showing the last valid one.'}
        </p>
      )}
    </section>
  );
}
