import { arithmeticFields } from '@schritt/core/document';
import { componentNames } from '@schritt/core/notation';
import { Button } from 'antd';
import { memo, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import { createEntry } from '../api/client.ts';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import { notices } from '../frame/notices.tsx';
import { IsKeptContext } from '../state/is-kept.ts';
import type { ReadMethod } from '../state/use-good-study.ts';
import { newKey, withArithmetic, withLadder, type WorkingMethod } from '../state/working-study.ts';
import { ErrorSettings } from './error-settings.tsx';
import { LadderEditor } from './ladder-editor.tsx';
import { MethodLibrary } from './method-library.tsx';
import { MethodStatement } from './method-statement.tsx';
import { MovedParameters } from './moved-parameters.tsx';
import { MeasuredStatement } from './measured-statement.tsx';
import { NoteStatement } from './note-statement.tsx';
import { ProblemStatement } from './problem-statement.tsx';
import { RunSettings } from './run-settings.tsx';
import { StoredProblem } from './stored-problem.tsx';

const BLANK = 'k1 = f(t, y)\ny[n+1] = y + h*k1\n';

/** A title that no method of the study has yet: the given one, or that with a number. */
export function freeTitle(wished: string, taken: readonly string[]): string {
  if (!taken.includes(wished)) return wished;
  let number = 2;
  while (taken.includes(`${wished} ${number}`)) number += 1;
  return `${wished} ${number}`;
}

/** Hides the column, and shows it again. */
function FoldButton(): ReactNode {
  const { setView } = useStudyState('setView');
  const isFolded = useStudyValue(({ view }) => view.folded);
  const label = isFolded ? 'Show panel' : 'Hide panel';
  return (
    <Button
      type="text"
      size="small"
      className="fold"
      aria-expanded={!isFolded}
      aria-label={label}
      title={`${label} (s)`}
      onClick={() => setView({ folded: !isFolded })}
    >
      {isFolded ? '›' : '‹'}
    </Button>
  );
}

/** A method of the study, with what changes it; another one that changes leaves it as it is. */
const MethodPart = memo(function MethodPart({
  method,
  index,
  now,
  good,
  proved,
  isAdded,
}: Pick<ReadMethod, 'now' | 'good'> & {
  readonly method: WorkingMethod;
  readonly index: number;
  readonly proved: string | null;
  /** Whether it was added just now, to be typed. */
  readonly isAdded: boolean;
}): ReactNode {
  const { edit } = useStudyState('edit');
  const change = useStudyValue(({ methods }) => methods.change);
  const isKept = useContext(IsKeptContext);
  const { key, title, text } = method;
  const read = useMemo(() => ({ now, good }), [now, good]);
  const keep = (): void =>
    void createEntry('method', { schritt: 1, kind: 'method', title, text })
      .then(() => notices.done(`“${title}” was saved to the library.`))
      .catch(notices.failed);
  return (
    <MethodStatement
      index={index}
      title={title}
      text={text}
      read={read}
      proved={proved}
      startOpen={isAdded}
      onTitle={(next) => change(key, 'title of', (own) => ({ ...own, title: next }))}
      onText={(next) => change(key, 'text of', (own) => ({ ...own, text: next }))}
      onKeep={isKept && now.ok ? keep : null}
      onRemove={() =>
        edit(`remove ${key}`, (of) => ({ ...of, methods: of.methods.filter((other) => other.key !== key) }))
      }
      arithmetic={arithmeticFields(method)}
      onArithmetic={(fields) => change(key, 'arithmetic of', (own) => withArithmetic(own, fields))}
    />
  );
});

/** The methods of the study, each with its text, and what adds one. */
const MethodsPart = memo(function MethodsPart(): ReactNode {
  const { edit, proved } = useStudyState('edit', 'proved');
  const methods = useStudyValue(({ study }) => study.methods);
  const reads = useStudyValue(({ good }) => good.methods);
  const [added, setAdded] = useState<string | null>(null);
  const add = (title: string, text: string, open: boolean): void => {
    const key = newKey();
    if (open) setAdded(key);
    edit(`add ${key}`, (now) => {
      const own = freeTitle(
        title,
        now.methods.map((method) => method.title),
      );
      return { ...now, methods: [...now.methods, { key, title: own, text }] };
    });
  };
  return (
    <>
      <h2 className="label methods-label">Methods</h2>
      {methods.map((method, index) => {
        const read = reads[index];
        if (read === undefined) return null;
        return (
          <MethodPart
            key={method.key}
            method={method}
            index={index}
            now={read.now}
            good={read.good}
            proved={read.good === null ? null : (proved.get(read.good.text) ?? null)}
            isAdded={method.key === added}
          />
        );
      })}
      <div className="add-method">
        <Button size="small" type="text" onClick={() => add(`Method ${methods.length + 1}`, BLANK, true)}>
          New method
        </Button>
        <MethodLibrary onUse={(title, text) => add(title, text, false)} />
      </div>
    </>
  );
});

const NotePart = memo(function NotePart(): ReactNode {
  const { edit } = useStudyState('edit');
  const note = useStudyValue(({ study }) => study.note);
  return (
    <NoteStatement
      note={note}
      onChange={(next) =>
        edit('note', ({ note: _, ...now }) => (next === undefined ? now : { ...now, note: next }))
      }
    />
  );
});

const MeasuredPart = memo(function MeasuredPart(): ReactNode {
  const { edit } = useStudyState('edit');
  const measured = useStudyValue(({ study }) => study.measured);
  const components = useStudyValue(({ problem }) => (problem === null ? [] : componentNames(problem)));
  const start = useStudyValue(({ problem }) => problem?.start ?? 0);
  const end = useStudyValue(({ problem }) => problem?.end ?? 1);
  const of = useMemo(() => ({ components, start, end }), [components, start, end]);
  return (
    <MeasuredStatement
      measured={measured}
      of={of}
      onChange={(next) =>
        edit('measured', ({ measured: _, ...now }) => (next === undefined ? now : { ...now, measured: next }))
      }
    />
  );
});

const ProblemPart = memo(function ProblemPart(): ReactNode {
  const { edit } = useStudyState('edit');
  const text = useStudyValue(({ study }) => study.problem.text);
  const read = useStudyValue(({ good }) => good.problem);
  const use = useCallback(
    (title: string, other: string) =>
      edit('another problem', (of) => ({ ...of, problem: { title, text: other } })),
    [edit],
  );
  const isKept = useContext(IsKeptContext);
  return (
    <ProblemStatement
      read={read}
      text={text}
      onChange={(next) => edit('problem', (of) => ({ ...of, problem: { ...of.problem, text: next } }))}
      instead={isKept && <StoredProblem onUse={use} />}
    >
      <MovedParameters />
    </ProblemStatement>
  );
});

const LadderPart = memo(function LadderPart(): ReactNode {
  const { edit } = useStudyState('edit');
  const ladder = useStudyValue(({ study }) => study.ladder);
  return <LadderEditor ladder={ladder} onChange={(next) => edit('ladder', (now) => withLadder(now, next))} />;
});

/** The column at the left: the problem, the methods and the step sizes, each typed in its place. */
export function StatementColumn(): ReactNode {
  const isFolded = useStudyValue(({ view }) => view.folded);
  return (
    <div className={isFolded ? 'statement-column folded' : 'statement-column'}>
      <FoldButton />
      <NotePart />
      <MeasuredPart />
      <ProblemPart />
      <MethodsPart />
      <LadderPart />
      <ErrorSettings />
      <RunSettings />
    </div>
  );
}
