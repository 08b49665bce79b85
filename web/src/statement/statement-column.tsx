import { componentNames } from '@schritt/core/notation';
import { Button } from 'antd';
import { type ReactNode, useContext, useMemo, useState } from 'react';
import { createEntry } from '../api/client.ts';
import { useStudyState } from '../state/study-state.ts';
import { useNotices } from '../frame/use-notices.tsx';
import { IsKeptContext } from '../state/is-kept.ts';
import { newKey, type WorkingMethod, withLadder } from '../state/working-study.ts';
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
  const { view, setView } = useStudyState('view', 'setView');
  const label = view.folded ? 'Show panel' : 'Hide panel';
  return (
    <Button
      type="text"
      size="small"
      className="fold"
      aria-expanded={!view.folded}
      aria-label={label}
      title={`${label} (s)`}
      onClick={() => setView({ folded: !view.folded })}
    >
      {view.folded ? '›' : '‹'}
    </Button>
  );
}

/** The methods of the study, each with its text, and what adds one. */
function MethodsPart(): ReactNode {
  const { study, good, edit, proved, methods } = useStudyState('study', 'good', 'edit', 'proved', 'methods');
  const notices = useNotices();
  const isKept = useContext(IsKeptContext);
  const [added, setAdded] = useState<string | null>(null);
  const changeMethod = (key: string, about: string, change: Partial<WorkingMethod>): void =>
    methods.change(key, about, (method) => ({ ...method, ...change }));
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
  const remove = (key: string): void =>
    edit(`remove ${key}`, (now) => ({ ...now, methods: now.methods.filter((other) => other.key !== key) }));
  const keep = ({ title, text }: WorkingMethod): void =>
    void createEntry('method', { schritt: 1, kind: 'method', title, text })
      .then(() => notices.done(`“${title}” was saved to the library.`))
      .catch(notices.failed);
  return (
    <>
      <h2 className="label methods-label">Methods</h2>
      {study.methods.map((method, index) => {
        const read = good.methods[index];
        if (read === undefined) return null;
        return (
          <MethodStatement
            key={method.key}
            index={index}
            title={method.title}
            text={method.text}
            read={read}
            proved={read.good === null ? null : (proved.get(read.good.text) ?? null)}
            startOpen={method.key === added}
            onTitle={(title) => changeMethod(method.key, 'title of', { title })}
            onText={(text) => changeMethod(method.key, 'text of', { text })}
            onKeep={isKept && read.now.ok ? () => keep(method) : null}
            onRemove={() => remove(method.key)}
          />
        );
      })}
      <div className="add-method">
        <Button
          size="small"
          type="text"
          onClick={() => add(`Method ${study.methods.length + 1}`, BLANK, true)}
        >
          New method
        </Button>
        <MethodLibrary onUse={(title, text) => add(title, text, false)} />
      </div>
    </>
  );
}

/** The column at the left: the problem, the methods and the step sizes, each typed in its place. */
export function StatementColumn(): ReactNode {
  const { study, good, edit, problem, error, view } = useStudyState(
    'study',
    'good',
    'edit',
    'problem',
    'error',
    'view',
  );
  const isKept = useContext(IsKeptContext);
  const measuredOf = useMemo(
    () => ({
      components: problem === null ? [] : componentNames(problem),
      start: problem?.start ?? 0,
      end: problem?.end ?? 1,
    }),
    [problem],
  );
  return (
    <div className={view.folded ? 'statement-column folded' : 'statement-column'}>
      <FoldButton />
      <NoteStatement
        note={study.note}
        onChange={(note) =>
          edit('note', ({ note: _, ...now }) => (note === undefined ? now : { ...now, note }))
        }
      />
      <MeasuredStatement
        measured={study.measured}
        of={measuredOf}
        onChange={(measured) =>
          edit('measured', ({ measured: _, ...now }) => (measured === undefined ? now : { ...now, measured }))
        }
      />
      <ProblemStatement
        read={good.problem}
        text={study.problem.text}
        onChange={(text) => edit('problem', (now) => ({ ...now, problem: { ...now.problem, text } }))}
        instead={
          isKept && (
            <StoredProblem
              onUse={(title, text) =>
                edit('another problem', (now) => ({ ...now, problem: { title, text } }))
              }
            />
          )
        }
      >
        <MovedParameters />
      </ProblemStatement>
      <MethodsPart />
      <LadderEditor
        ladder={study.ladder}
        onChange={(ladder) => edit('ladder', (now) => withLadder(now, ladder))}
      />
      <ErrorSettings
        problem={problem}
        error={error}
        onChange={(next) => edit('error', (now) => ({ ...now, error: next }))}
      />
      <RunSettings study={study} onChange={edit} />
    </div>
  );
}
