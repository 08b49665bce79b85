import type { StudyDocument } from '@schritt/core/document';
import { Empty, Skeleton } from 'antd';
import { type ReactNode, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import useSWR from 'swr';
import { type Entry, loadEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { AfterPaint } from '../frame/after-paint.tsx';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { LoadingPage } from '../frame/loading-page.tsx';
import { TopBar } from '../frame/top-bar.tsx';
import { UnderWay } from '../frame/under-way.tsx';
import { usePageTitle } from '../frame/use-page-title.ts';
import { ClassResults } from '../marking/class-results.tsx';
import { type MarkingSession, submittedOf } from '../marking/marking-session.ts';
import { RowsInput } from '../marking/rows-input.tsx';
import { RuleSettings } from '../marking/rule-settings.tsx';
import { RunSettings, type RunSettingsProps } from '../marking/run-settings.tsx';
import { STUDENT_PARTS, StudentResult } from '../marking/student-result.tsx';
import { UnderstoodPart } from '../marking/understood-part.tsx';
import { useFindRun } from '../marking/use-find-run.ts';
import { typedSize, type TypedSize, useMarked, useSubmissions } from '../marking/use-marking.ts';
import { useMarkingSession } from '../marking/use-marking-session.ts';
import { usePreparedPlots } from '../plots/use-prepared-plots.ts';
import { PreparedTable } from '../tables/prepared-table.tsx';
import '../export/export.css';
import '../marking/marking.css';

/** What is still to be done before anything can be marked; null where nothing is. */
function missing(session: MarkingSession, size: TypedSize): string | null {
  if (submittedOf(session).length === 0)
    return 'Paste the rows of a student or of a class, or open their files.';
  if (session.study === null) return 'Choose the study that the rows belong to, or find it by the rows.';
  return size.kind === 'none' ? 'Type the step size, or find it by the rows.' : null;
}

/** A study as it is stored now; null before it is there. */
function useStudyDocument(id: string | null): {
  readonly document: StudyDocument | null;
  readonly error: Error | undefined;
} {
  const { data, error } = useSWR<Entry<StudyDocument>, Error>(
    id === null ? null : ['marking', id],
    () => loadEntry('study', id ?? ''),
    { revalidateOnFocus: false, shouldRetryOnError: false },
  );
  return { document: data?.document ?? null, error };
}

/** What rows there are, of which run they are, and how marks are given. */
function MarkingSettings({ session, change, ...run }: RunSettingsProps): ReactNode {
  return (
    <div className="marking-settings">
      <h1>Marking</h1>
      <RowsInput
        files={session.files}
        pasted={session.pasted}
        layout={session.layout}
        roles={session.roles}
        reading={session.reading}
        sheets={session.sheets}
        change={change}
      />
      <RunSettings session={session} change={change} {...run} />
      {run.document !== null && session.study !== null && (
        <p className="quiet">
          <Link to={`/studies/${session.study}`}>Open the study</Link>
        </p>
      )}
      <RuleSettings rule={session.rule} variants={session.variants} change={change} />
    </div>
  );
}

/** The page with a session that is read. */
function MarkingWork({
  session,
  change,
}: {
  readonly session: MarkingSession;
  readonly change: (part: Partial<MarkingSession>) => void;
}): ReactNode {
  const { rows: studies } = useEntries('study');
  usePreparedPlots();
  const { document, error } = useStudyDocument(session.study);
  const typed = useMemo(() => typedSize(session.size), [session.size]);
  const wanting = missing(session, typed);
  const understood = useSubmissions(document, session, typed.kind === 'size' ? typed.gridRequest : null);
  const isReady = wanting === null && typed.kind === 'size' && document !== null;
  const submissions = isReady ? understood.value : null;
  const marked = useMarked(submissions, session.sheets);
  const latest = useMemo(
    () => ({ submissions, students: submissions === null ? [] : (marked.value ?? []) }),
    [submissions, marked.value],
  );
  // rendered in pieces between frames, as students come one after another
  const { submissions: of, students } = useDeferredValue(latest);
  const finding = useFindRun(session, studies, change);
  const [chosen, setChosen] = useState<string | null>(null);
  const { sheets } = session;
  const onSheet = useCallback(
    (student: string, sheet: number | null) => {
      const { [student]: _, ...others } = sheets;
      change({ sheets: sheet === null ? others : { ...others, [student]: sheet } });
    },
    [sheets, change],
  );
  const student =
    students.find((one) => one.student === chosen) ??
    students.find(({ marking }) => marking?.firstWrong !== null) ??
    students[0];
  return (
    <main className="marking-page">
      <MarkingSettings
        session={session}
        change={change}
        studies={studies}
        document={document}
        size={typed}
        finding={finding}
      />
      <PreparedTable />
      <div className="marking-results">
        {error !== undefined && <p className="wrong">This study cannot be opened: {error.message}.</p>}
        {wanting !== null && <Empty image={Empty.PRESENTED_IMAGE_SIMPLE} description={wanting} />}
        {isReady && <UnderWay computed={understood} what="the columns" kept="nothing is marked" />}
        {submissions !== null && (
          <>
            <UnderstoodPart understood={submissions} session={session} change={change} />
            <UnderWay computed={marked} what="the marks" kept="students marked so far are shown" />
          </>
        )}
        {submissions !== null && of !== null && student !== undefined && (
          <AfterPaint parts={1 + STUDENT_PARTS}>
            {(parts) => (
              <>
                <ErrorBoundary what="The class" of={students}>
                  <ClassResults
                    students={students}
                    keys={of.keys}
                    rule={session.rule}
                    chosen={student.student}
                    onChoose={setChosen}
                    onSheet={onSheet}
                  />
                </ErrorBoundary>
                {parts > 1 && (
                  <ErrorBoundary what="The student" of={student}>
                    <StudentResult
                      key={student.student}
                      student={student}
                      keys={of.keys}
                      components={of.components}
                      parts={parts - 1}
                    />
                  </ErrorBoundary>
                )}
              </>
            )}
          </AfterPaint>
        )}
        {isReady && understood.value === null && understood.why === null && (
          <Skeleton active aria-label="Loading" />
        )}
      </div>
    </main>
  );
}

/** Marking: rows of students beside the right run, with the mistakes that give exactly their numbers. */
export function MarkingPage(): ReactNode {
  const [query] = useSearchParams();
  const { session, change } = useMarkingSession(query.get('study'));
  usePageTitle('Marking');
  if (session === null) return <LoadingPage />;
  return (
    <div className="page-frame">
      <TopBar />
      <MarkingWork session={session} change={change} />
    </div>
  );
}
