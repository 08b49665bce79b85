import { LIBRARY } from '@schritt/core/notation';
import { App, Button, Select } from 'antd';
import { type ReactNode, useState } from 'react';
import { loadEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { ErrorSettings } from './error-settings.tsx';
import { LadderEditor } from './ladder-editor.tsx';
import { MethodStatement } from './method-statement.tsx';
import { NoteStatement } from './note-statement.tsx';
import { ProblemStatement } from './problem-statement.tsx';
import { RunSettings } from './run-settings.tsx';
import { useDesk } from '../desk/desk.ts';
import { newKey, type WorkingMethod, withLadder } from '../desk/working-study.ts';

const BLANK = 'k1 = f(t, y)\ny[n+1] = y + h*k1\n';

/** Title and text of a method of the list, or of those that come with the program. */
async function textOf(key: string): Promise<{ readonly title: string; readonly text: string }> {
  return LIBRARY.find(({ title }) => title === key) ?? (await loadEntry('method', key)).document;
}

/** What is known of a method that comes with the program, behind its title. */
function told(title: string): string {
  const known = LIBRARY.find((method) => method.title === title);
  return known === undefined ? '' : ` · order ${known.order}`;
}

/** A title that no method of the study has yet: the wished one, or that with a number. */
export function freeTitle(wished: string, taken: readonly string[]): string {
  if (!taken.includes(wished)) return wished;
  let number = 2;
  while (taken.includes(`${wished} ${number}`)) number += 1;
  return `${wished} ${number}`;
}

/** The column at the left: the problem, the methods and the step sizes, each typed in its place. */
export function StatementColumn(): ReactNode {
  const { study, good, edit, problem, error, methods } = useDesk();
  // a page that is only shown has no list: then the methods that come with the program
  const { rows } = useEntries('method');
  const { message } = App.useApp();
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
  return (
    <div className="statement-column">
      <NoteStatement
        note={study.note}
        onChange={(note) =>
          edit('note', ({ note: _, ...now }) => (note === undefined ? now : { ...now, note }))
        }
      />
      <ProblemStatement
        read={good.problem}
        text={study.problem.text}
        onChange={(text) => edit('problem', (now) => ({ ...now, problem: { ...now.problem, text } }))}
      />
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
            startOpen={method.key === added}
            onTitle={(title) => changeMethod(method.key, 'title of', { title })}
            onText={(text) => changeMethod(method.key, 'text of', { text })}
            onRemove={() =>
              edit(`remove ${method.key}`, (now) => ({
                ...now,
                methods: now.methods.filter((other) => other.key !== method.key),
              }))
            }
          />
        );
      })}
      <div className="add-method">
        <Button
          size="small"
          type="text"
          onClick={() => add(`Method ${study.methods.length + 1}`, BLANK, true)}
        >
          + write a method
        </Button>
        <Select<string>
          size="small"
          variant="borderless"
          className="from-library"
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="+ from the library"
          aria-label="Take a method from the library"
          value={null}
          listHeight={340}
          popupMatchSelectWidth={360}
          options={(rows ?? LIBRARY.map(({ title }) => ({ id: title, title }))).map(({ id, title }) => ({
            value: id,
            label: title + told(title),
          }))}
          onSelect={(key) =>
            void textOf(key)
              .then(({ title, text }) => add(title, text, false))
              .catch((thrown: unknown) =>
                message.error(thrown instanceof Error ? thrown.message : String(thrown)),
              )
          }
        />
      </div>
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
