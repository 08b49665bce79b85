import {
  markingText,
  type Marking,
  type RowVerdict,
  rowText,
  type StudentMarking,
} from '@schritt/core/marking';
import type { Curves } from '@schritt/core/study';
import { short, significant, withMinus } from '@schritt/core/text';
import { markingPlot, methodMark, type RunView } from '@schritt/plot';
import { Segmented, Table, type TableColumnsType } from 'antd';
import { memo, type ReactNode, useMemo, useState } from 'react';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { usePalette } from '../theme/use-palette.ts';
import type { MarkingKeys } from '../worker/marking-answers.ts';
import { type Ask, useComputed } from '../worker/use-work.ts';

/** Rows that are shown without pages. */
const PAGE = 60;

/** A mistake that reproduces the rows: in words, and its lines beside the right ones. */
function Mistakes({ marking }: { readonly marking: Marking }): ReactNode {
  const { mistakes, firstWrong, slip } = marking;
  if (firstWrong === null) return null;
  if (mistakes.length === 0)
    return slip === null ? <p className="quiet">No known mistake gives exactly these numbers.</p> : null;
  return (
    <section aria-label="Likely mistakes" className="marking-mistakes">
      <h3>
        {mistakes.length === 1
          ? `This mistake gives exactly these ${mistakes[0]?.explains ?? 0} rows`
          : `Each of these ${mistakes.length} mistakes gives exactly these ${mistakes[0]?.explains ?? 0} rows`}
      </h3>
      <ol>
        {mistakes.map(({ sentence, lines }) => (
          <li key={sentence}>
            <p>{sentence}</p>
            {lines.map(({ given, right }) => (
              <dl key={given}>
                <dt>with the mistake</dt>
                <dd>
                  <code>{given}</code>
                </dd>
                <dt>right</dt>
                <dd>
                  <code>{right}</code>
                </dd>
              </dl>
            ))}
          </li>
        ))}
      </ol>
    </section>
  );
}

function numberText(value: number | null | undefined, digits: number): string {
  return value == null ? '–' : withMinus(significant(value, Math.min(17, digits)));
}

function columnsOf(
  { digits: { significant: own }, independent }: Marking,
  components: readonly string[],
): TableColumnsType<RowVerdict> {
  const ofEach = (
    title: (component: string) => string,
    value: (row: RowVerdict, j: number) => number | null | undefined,
    digits: number,
  ): TableColumnsType<RowVerdict> =>
    components.map((component, j) => ({
      title: title(component),
      align: 'right' as const,
      render: (_, row) => numberText(value(row, j), digits),
    }));
  return [
    { title: 'n', dataIndex: 'n', align: 'right', width: 60, rowScope: 'row' },
    { title: independent, align: 'right', width: 80, render: (_, { t }) => withMinus(short(t, 6)) },
    ...ofEach(
      (name) => `${name}, student`,
      ({ given }, j) => given[j],
      own,
    ),
    ...ofEach(
      (name) => `${name}, right`,
      ({ right }, j) => right?.[j],
      own + 1,
    ),
    ...ofEach(
      (name) => `${name}, from own row`,
      ({ fromOwn }, j) => fromOwn?.[j],
      own + 1,
    ),
    { title: 'result', width: 210, render: (_, row) => rowText(row, 'the student’s') },
  ];
}

/** The right run and the student's rows over the exact solution. */
function StudentPlot({
  student,
  marking,
  keys,
  component,
}: {
  readonly student: StudentMarking;
  readonly marking: Marking;
  readonly keys: MarkingKeys;
  readonly component: number;
}): ReactNode {
  const { document, problems, method, gridRequest } = keys;
  const text = problems[(student.sheet ?? 1) - 1] ?? document.problem.text;
  const palette = usePalette();
  const ask = useMemo(
    (): Ask<Curves> => (computer, progress) =>
      computer.ask(
        'curves',
        {
          document: { ...document, problem: { ...document.problem, text } },
          runs: [{ method, gridRequest }],
        },
        progress,
      ),
    [document, text, method, gridRequest],
  );
  const curves = useComputed(ask).value;
  const plot = useMemo(() => {
    const run = curves?.runs[0];
    if (curves == null || run === undefined) return null;
    const title = document.methods[method]?.title ?? '';
    const view: RunView = {
      curves,
      runs: [{ id: 'right', label: `${title}, right`, mark: methodMark(palette, 0), run }],
      byRungs: false,
      component,
      drawn: null,
      palette,
    };
    return markingPlot(view, marking.independent, {
      name: student.student,
      points: marking.rows.flatMap(({ t, given }) => {
        const y = given[component];
        return y == null ? [] : [{ x: t, y }];
      }),
      firstWrong: marking.rows.find(({ n }) => n === marking.firstWrong)?.t ?? null,
    });
  }, [curves, document, method, marking, student.student, component, palette]);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  return (
    <div className="marking-plot">
      {plot === null ? (
        <div className="plot" />
      ) : (
        <PlotCanvas
          plot={plot}
          switches={{
            hidden,
            toggle: (id) =>
              setHidden((now) => {
                const next = new Set(now);
                if (!next.delete(id)) next.add(id);
                return next;
              }),
          }}
        />
      )}
    </div>
  );
}

/** The page of the first wrong row. */
function firstPage({ rows, firstWrong }: Marking): number {
  const at = rows.findIndex(({ n }) => n === firstWrong);
  return 1 + Math.floor(Math.max(0, at) / PAGE);
}

/** Parts of what is shown of a student: words, plot and rows. */
export const STUDENT_PARTS = 3;

/** One student: what is said of the rows, likely mistakes, the plot, and the rows beside the right ones. */
export const StudentResult = memo(function StudentResult({
  student,
  keys,
  components,
  parts,
}: {
  readonly student: StudentMarking;
  readonly keys: MarkingKeys;
  readonly components: readonly string[];
  /** How many of its parts are shown. */
  readonly parts: number;
}): ReactNode {
  const { marking, why } = student;
  const [wanted, setComponent] = useState(0);
  const component = Math.min(wanted, components.length - 1);
  if (marking === null)
    return (
      <section aria-label="Student" className="marking-student">
        <h2>{student.student}</h2>
        <p className="wrong">Not marked: {why}.</p>
      </section>
    );
  return (
    <section aria-label="Student" className="marking-student">
      <div className="marking-words">
        <h2>
          {student.student}
          {student.sheet === null ? '' : `, sheet ${student.sheet}`}
        </h2>
        {markingText(marking).map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
        <Mistakes marking={marking} />
      </div>
      <div className="marking-drawn">
        {components.length > 1 && (
          <Segmented
            size="small"
            aria-label="Component"
            value={component}
            options={components.map((label, value) => ({ value, label }))}
            onChange={setComponent}
          />
        )}
        {parts > 1 && <StudentPlot student={student} marking={marking} keys={keys} component={component} />}
      </div>
      {parts > 2 && (
        <Table<RowVerdict>
          size="small"
          className="marking-rows"
          rowKey="line"
          pagination={
            marking.rows.length <= PAGE
              ? false
              : { pageSize: PAGE, showSizeChanger: false, defaultCurrent: firstPage(marking) }
          }
          scroll={{ x: 'max-content' }}
          dataSource={marking.rows}
          columns={columnsOf(marking, components)}
          rowClassName={({ n, agrees }) =>
            n === marking.firstWrong ? 'first-wrong' : agrees ? '' : 'wrong-row'
          }
        />
      )}
    </section>
  );
});
