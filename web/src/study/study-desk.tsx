import type { StudyDocument } from '@schritt/core/document';
import { type Problem, stepSizeText } from '@schritt/core/notation';
import { type ErrorChoice, isRelative, type Ladder, layGrid, layLadder } from '@schritt/core/study';
import { Input } from 'antd';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import type { Entry } from '../api/client.ts';
import { SaveStatus } from '../entries/save-status.tsx';
import { UndoButtons } from '../entries/undo-buttons.tsx';
import { useAutosave } from '../entries/use-autosave.ts';
import { useHistory } from '../entries/use-history.ts';
import { TopBar } from '../frame/top-bar.tsx';
import { type ErrorsOver, OrderPicture } from '../pictures/order-picture.tsx';
import { SolutionPicture } from '../pictures/solution-picture.tsx';
import { StepRuler } from '../ruler/step-ruler.tsx';
import type { Pointed } from '../table/rung-table.tsx';
import { TablePart } from '../table/table-part.tsx';
import { ComparisonPart } from './comparison-part.tsx';
import { FindingsList } from './findings-list.tsx';
import { StatementColumn } from './statement-column.tsx';
import { UnderWay } from './under-way.tsx';
import { useGoodStudy } from './use-good-study.ts';
import { useCurves, useResults } from './use-results.ts';
import {
  documentOf,
  movedWindow,
  strike,
  withLadder,
  withRungOf,
  type WorkingMethod,
  withoutRungAt,
  workOn,
} from './working-study.ts';
import './study-desk.css';

/** What the errors of a study are, as the picture says it. */
function errorCaption(problem: Problem, choice: ErrorChoice): string {
  const { at, of } = choice;
  const what = `${isRelative(choice) ? 'relative ' : ''}error${of === 'norm' ? '' : ` of ${of}`}`;
  if (at === 'local') return `${what} of one step`;
  if (at === 'max') return `largest ${what}`;
  if (at === 'rms') return `${what}, root mean square`;
  return `${what} at ${problem.independent} = ${stepSizeText(at === 'end' ? problem.end : at.t)}`;
}

/** One study on one page: its parts stand in fixed places and move together. */
export function StudyDesk(props: { readonly entry: Entry<StudyDocument> }): ReactNode {
  // the copy that was opened; from here on this page holds the newest one itself
  const [entry] = useState(props.entry);
  const [first] = useState(() => workOn(entry.document));
  const { value: study, edit, undo, redo } = useHistory(first);
  const document = useMemo(
    () => (study === first ? entry.document : documentOf(study)),
    [study, first, entry.document],
  );
  const autosave = useAutosave('study', entry, document);
  const good = useGoodStudy(study);
  const [wanted, setWanted] = useState(2);
  // steps of a run between the rungs, where the handle of the ruler was dragged; null on a rung
  const [free, setFree] = useState<number | null>(null);
  const [component, setComponent] = useState(0);
  const [marked, setMarked] = useState<number | null>(null);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const [over, setOver] = useState<ErrorsOver>('h');

  const problem = good.problem.good?.value ?? null;
  const rungs = useMemo(
    () =>
      problem === null ? [] : layLadder(study.ladder, problem.start, problem.end, study.lastStep ?? 'fit'),
    [problem, study.ladder, study.lastStep],
  );
  const rows = useMemo(() => rungs.flatMap((rung, i) => (rung.ok ? [i] : [])), [rungs]);
  const chosen = rows.includes(wanted) ? wanted : (rows.filter((i) => i < wanted).at(-1) ?? rows[0] ?? 0);
  const rung = rungs[chosen];
  const grid = useMemo(() => {
    if (free !== null && problem !== null) return layGrid(problem.start, problem.end, { steps: free });
    return rung?.ok === true ? rung.grid : null;
  }, [free, problem, rung]);
  const choose = useCallback((rung: number) => {
    setFree(null);
    setWanted(rung);
  }, []);

  const results = useResults(good.document, good.keys);
  const curves = useCurves(good.document, good.keys, grid?.wished ?? null);
  const { methods } = study;
  const placeOf = useCallback(
    (key: string) =>
      Math.max(
        0,
        methods.findIndex((m) => m.key === key),
      ),
    [methods],
  );
  const titleOf = useCallback((key: string) => methods.find((m) => m.key === key)?.title ?? '', [methods]);
  const chooseRow = useCallback((row: number) => choose(rows[row] ?? 0), [rows, choose]);
  const setLadder = (ladder: Ladder): void => edit('ladder', (now) => withLadder(now, ladder));
  const changeMethod = (key: string, about: string, change: (method: WorkingMethod) => WorkingMethod): void =>
    edit(`${about} ${key}`, (now) => ({
      ...now,
      methods: now.methods.map((method) => (method.key === key ? change(method) : method)),
    }));
  /** Moves the nearer end of a method's window to a rung; a window of the rules becomes the person's own. */
  const moveWindow = (key: string, rung: number): void => {
    const fit = results.value?.result.methods[results.value.keys.indexOf(key)]?.fit ?? null;
    const ruled = fit === null ? null : { from: rows[fit.from] ?? 0, to: rows[fit.to] ?? 0 };
    changeMethod(key, 'window of', (method) => {
      const window = method.window ?? ruled;
      return window === null ? method : { ...method, window: movedWindow(window, rung) };
    });
  };

  const components = curves.value?.curves.components ?? [];
  const shown = Math.min(component, Math.max(0, components.length - 1));
  const unlaid = rungs.flatMap((r) => (r.ok ? [] : [`${r.written}: ${r.message}`]));
  const caption = problem === null ? '' : errorCaption(problem, study.error ?? DEFAULT_ERROR);
  return (
    <div className="page-frame">
      <TopBar
        title={
          <Input
            variant="borderless"
            value={study.title}
            maxLength={200}
            aria-label="Title of the study"
            onChange={(event) => edit('title', (now) => ({ ...now, title: event.target.value }))}
          />
        }
        actions={
          <>
            <SaveStatus autosave={autosave} onTake={(theirs) => edit('other copy', () => workOn(theirs))} />
            <UndoButtons undo={undo} redo={redo} />
          </>
        }
      />
      <main className={study.methods.length > 3 ? 'study-desk many' : 'study-desk'}>
        <div className="step-now">
          <h1>{grid === null ? 'h' : `h = ${stepSizeText(grid.h)}`}</h1>
          {grid !== null && (
            <p className="quiet">
              {grid.steps} {grid.steps === 1 ? 'step' : 'steps'} ·{' '}
              {free === null &&
                (grid.divides
                  ? 'h divides the interval'
                  : `${stepSizeText(grid.wished)} does not divide the interval`)}
              {free !== null && problem !== null && (
                <button
                  type="button"
                  className="plain-button add-rung"
                  onClick={() => {
                    const { start, end } = problem;
                    edit('ladder', (now) => withRungOf(now, free, end - start));
                    setFree(null);
                    setWanted(rungs.filter((other) => other.ok && other.grid.h > grid.h).length);
                  }}
                >
                  + as a rung
                </button>
              )}
            </p>
          )}
        </div>
        <div className="ruler-strip">
          <StepRuler
            rungs={rungs}
            length={problem === null ? 1 : problem.end - problem.start}
            now={grid && { h: grid.h, steps: grid.steps, rung: free === null ? chosen : null }}
            onChoose={choose}
            onFree={setFree}
          />
        </div>
        <StatementColumn study={study} good={good} edit={edit} onLadder={setLadder} />
        <section className="lens lens-solution" aria-label="Solution">
          <div className="lens-head">
            <h2>Solution</h2>
            {components.length > 1 &&
              components.map((name, i) => (
                <button
                  key={name}
                  type="button"
                  className="plain-button component"
                  aria-pressed={i === shown}
                  onClick={() => setComponent(i)}
                >
                  {name}
                </button>
              ))}
          </div>
          <div className="picture">
            {curves.value !== null && (
              <SolutionPicture
                keyed={curves.value}
                placeOf={placeOf}
                titleOf={titleOf}
                component={shown}
                independent={problem?.independent ?? 't'}
                marked={marked}
                onMark={setMarked}
              />
            )}
          </div>
        </section>
        <section className="lens lens-order" aria-label="Order">
          <div className="lens-head">
            <h2>Order</h2>
            {(['h', 'evaluations'] as const).map((choice) => (
              <button
                key={choice}
                type="button"
                className="plain-button component"
                aria-pressed={choice === over}
                onClick={() => setOver(choice)}
              >
                over {choice}
              </button>
            ))}
          </div>
          <div className="picture">
            {results.value !== null && (
              <OrderPicture
                keyed={results.value}
                placeOf={placeOf}
                over={over}
                caption={caption}
                pointed={pointed}
                chosenSize={grid?.h ?? null}
                onChoose={chooseRow}
              />
            )}
          </div>
        </section>
        <section className="table-part" aria-label="Rungs">
          <UnderWay
            computed={results}
            what="the study"
            kept="shown is what there was of it"
            onServer={results.onServer}
          />
          <UnderWay computed={curves} what="the curves" />
          {unlaid.map((line) => (
            <p key={line} className="wrong">
              {line}
            </p>
          ))}
          {results.value !== null && (
            <TablePart
              keyed={results.value}
              document={good.document}
              h={grid?.wished ?? null}
              independent={problem?.independent ?? 't'}
              placeOf={placeOf}
              titleOf={titleOf}
              scale={(study.error ?? DEFAULT_ERROR).scale}
              pointed={pointed}
              chosen={free === null ? chosen : -1}
              rows={rows}
              onChoose={choose}
              onRemove={(rung) => edit('ladder', (now) => withoutRungAt(now, rung))}
              onStrike={(key, rung) => changeMethod(key, 'strike', (method) => strike(method, rung))}
              onWindow={moveWindow}
              onMark={setMarked}
            />
          )}
        </section>
        <aside className="sentences" aria-label="In words">
          {results.value !== null && (
            <>
              <FindingsList
                keyed={results.value}
                placeOf={placeOf}
                titleOf={titleOf}
                onPoint={setPointed}
                onRules={(key) => changeMethod(key, 'window of', ({ window: _, ...method }) => method)}
              />
              <ComparisonPart
                keyed={results.value}
                placeOf={placeOf}
                titleOf={titleOf}
                wished={study.wished}
                onWished={(wished) =>
                  edit('wished error', ({ wished: _, ...now }) =>
                    wished === undefined ? now : { ...now, wished },
                  )
                }
              />
            </>
          )}
        </aside>
      </main>
    </div>
  );
}
