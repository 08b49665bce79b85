import {
  classCounts,
  classTable,
  countsText,
  type MarkRule,
  marksOf,
  type StudentMarking,
} from '@schritt/core/marking';
import { mediaType, writeTable } from '@schritt/core/document';
import { counted, plainName } from '@schritt/core/text';
import { Button, InputNumber, Table, type TableColumnsType } from 'antd';
import { lazy, memo, type ReactNode, Suspense, useMemo, useState } from 'react';
import { download } from '../plots/download.ts';
import { moveInRows } from '../tables/row-keys.ts';
import type { MarkingKeys } from '../worker/marking-answers.ts';

const FeedbackPanel = lazy(async () => ({ default: (await import('./feedback-panel.tsx')).FeedbackPanel }));

/** Sentences of the counts that are shown. */
const MAX_SENTENCES = 6;

/** Height of the list of students, in px. */
const HEIGHT = 300;

interface ClassResultsProps {
  readonly students: readonly StudentMarking[];
  readonly keys: MarkingKeys;
  readonly rule: MarkRule;
  /** The student whose rows are shown. */
  readonly chosen: string | null;
  readonly onChoose: (student: string) => void;
  readonly onSheet: (student: string, sheet: number | null) => void;
}

interface StudentRow {
  readonly student: StudentMarking;
  readonly name: string;
  readonly marks: number;
  readonly rowsRight: number;
  readonly stepsRight: number;
  readonly rowsAsked: number;
  readonly firstWrong: number;
  readonly likely: string;
}

/** What is said of a student in the list. */
function likelyText({ marking, why }: StudentMarking): string {
  if (marking === null) return `not marked: ${why ?? ''}`;
  if (marking.firstWrong === null) return 'right';
  const [first, ...more] = marking.mistakes;
  if (first === undefined)
    return marking.slip === null
      ? 'wrong; no known mistake gives these numbers'
      : 'one wrong step; later steps are right from own rows';
  return more.length === 0 ? first.sentence : `${first.sentence} Or ${counted(more.length, 'other')}.`;
}

function rowsOf(students: readonly StudentMarking[], rule: MarkRule): readonly StudentRow[] {
  return students.map((student): StudentRow => {
    const { marking } = student;
    const marks = marking && marksOf(marking, rule);
    return {
      student,
      name: student.student,
      marks: marks?.marks ?? -1,
      rowsRight: marks?.rowsRight ?? -1,
      stepsRight: marks?.stepsRight ?? -1,
      rowsAsked: marks?.rowsAsked ?? 0,
      firstWrong: marking === null ? -1 : (marking.firstWrong ?? Infinity),
      likely: likelyText(student),
    };
  });
}

function shown(value: number): string {
  return value < 0 || value === Infinity ? '' : String(value);
}

function columnsOf(
  rows: readonly StudentRow[],
  { keys, onSheet }: Pick<ClassResultsProps, 'keys' | 'onSheet'>,
): TableColumnsType<StudentRow> {
  const hasSheets = keys.problems.length > 1;
  const likely = [...new Set(rows.map((row) => row.likely))];
  return [
    {
      title: 'Student',
      dataIndex: 'name',
      width: 150,
      sorter: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
    },
    ...(hasSheets
      ? [
          {
            title: 'Sheet',
            width: 90,
            render: (_: unknown, { student }: StudentRow) => (
              <InputNumber
                size="small"
                min={1}
                max={keys.problems.length}
                precision={0}
                aria-label={`Sheet of ${student.student}`}
                value={student.sheet}
                onChange={(value) => onSheet(student.student, value)}
              />
            ),
          },
        ]
      : []),
    {
      title: 'Marks',
      dataIndex: 'marks',
      align: 'right',
      width: 80,
      sorter: (a, b) => a.marks - b.marks,
      render: shown,
    },
    {
      title: 'Rows right',
      dataIndex: 'rowsRight',
      align: 'right',
      width: 105,
      sorter: (a, b) => a.rowsRight - b.rowsRight,
      render: (_, { rowsRight, rowsAsked }) => (rowsRight < 0 ? '' : `${rowsRight} of ${rowsAsked}`),
    },
    {
      title: 'Steps right',
      dataIndex: 'stepsRight',
      align: 'right',
      width: 105,
      sorter: (a, b) => a.stepsRight - b.stepsRight,
      render: (_, { stepsRight, rowsAsked }) => (stepsRight < 0 ? '' : `${stepsRight} of ${rowsAsked}`),
    },
    {
      title: 'First wrong row',
      dataIndex: 'firstWrong',
      align: 'right',
      width: 125,
      sorter: (a, b) => a.firstWrong - b.firstWrong,
      render: shown,
    },
    {
      title: 'Likely mistake',
      dataIndex: 'likely',
      ellipsis: true,
      sorter: (a, b) => a.likely.localeCompare(b.likely),
      filters: likely.map((value) => ({ text: value, value })),
      onFilter: (value, row) => row.likely === value,
    },
  ];
}

/** A class: who is right, how many made which mistake, and a row for each student. */
export const ClassResults = memo(function ClassResults(props: ClassResultsProps): ReactNode {
  const { students, keys, rule, chosen, onChoose, onSheet } = props;
  const [isFeedback, setFeedback] = useState(false);
  const rows = useMemo(() => rowsOf(students, rule), [students, rule]);
  const sentences = useMemo(() => countsText(classCounts(students), MAX_SENTENCES), [students]);
  const columns = useMemo(() => columnsOf(rows, { keys, onSheet }), [rows, keys, onSheet]);
  const name = plainName(keys.document.title, 'study', 60);
  return (
    <section aria-label="Class" className="marking-class">
      <div className="marking-head">
        <h2>{sentences[0]}</h2>
        <Button
          onClick={() =>
            download(
              `${name}-marks.csv`,
              new Blob([writeTable(classTable(students, rule), 'csv', { mark: true })], {
                type: mediaType('csv'),
              }),
            )
          }
        >
          Download CSV
        </Button>
        <Button onClick={() => setFeedback(true)}>Feedback sheets</Button>
      </div>
      <ul className="marking-counts" aria-label="Counts">
        {sentences.slice(1).map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <Table<StudentRow>
        size="small"
        rowKey="name"
        pagination={false}
        scroll={{ y: HEIGHT }}
        dataSource={rows}
        columns={columns}
        rowClassName={({ name: own }) => (own === chosen ? 'chosen' : '')}
        onRow={({ name: own }) => ({
          tabIndex: 0,
          'aria-current': own === chosen,
          onClick: () => onChoose(own),
          onFocus: () => onChoose(own),
          onKeyDown: moveInRows,
        })}
      />
      {isFeedback && (
        <Suspense fallback={null}>
          <FeedbackPanel
            keys={keys}
            students={students}
            rule={rule}
            chosen={chosen}
            name={name}
            onClose={() => setFeedback(false)}
          />
        </Suspense>
      )}
    </section>
  );
});
