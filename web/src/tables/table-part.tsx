import { componentNames } from '@schritt/core/notation';
import { memo, type ReactNode, Suspense, useState } from 'react';
import type { Computed } from '../worker/use-work.ts';
import type { UnderWayProps } from '../frame/under-way.tsx';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import type { KeyedResult } from '@schritt/plot';
import { designed } from '../theme/designed.tsx';
import { useFullNumber } from './use-full-number.ts';
import type { ValueChoice } from './rung-cells.tsx';
import { RungTable } from './rung-table.tsx';

const Head = memo(designed(async () => (await import('./table-head.tsx')).TableHead));
const UnderWay = designed<UnderWayProps>(async () => (await import('../frame/under-way.tsx')).UnderWay);

/** Whether there is something to be said of a computation. */
function isSpoken({ part, why }: Computed<unknown>): boolean {
  return part !== null || why !== null;
}

/** The rungs of the study against its methods; what is under way does not touch them. */
const Table = memo(function Table({
  keyed,
  place,
  name,
}: { readonly keyed: KeyedResult } & Omit<ValueChoice, 'digits'>): ReactNode {
  const { table } = useStudyState('table');
  const { columns, digits } = table;
  const [asParts, setAsParts] = useState(false);
  const { full, onClick } = useFullNumber();
  const isImplicit = keyed.result.methods.some(({ rungs }) => rungs.some(({ cost }) => cost.newton > 0));
  return (
    <>
      <ErrorBoundary what="The head of the table" of={columns}>
        <Suspense fallback={<div className="table-head" />}>
          <Head isImplicit={isImplicit} asParts={asParts} onAsParts={setAsParts} full={full} />
        </Suspense>
      </ErrorBoundary>
      <RungTable
        keyed={keyed}
        columns={columns}
        value={{ place, name, digits }}
        asParts={asParts}
        onClick={onClick}
      />
    </>
  );
});

/** The table under the plots, with what is to be said of the work that it waits for. */
export function TablePart(): ReactNode {
  const { results, curves, component } = useStudyState('results', 'curves', 'component');
  const rungs = useStudyValue(({ chosen }) => chosen.rungs);
  const isRun = useStudyValue(({ good }) => good.document !== null);
  const place = component.wanted;
  const name = useStudyValue(({ problem }) => (problem === null ? '' : componentNames(problem)[place])) ?? '';
  // where nothing can be run nothing is under way
  if (!isRun)
    return (
      <section className="table-part" aria-label="Step sizes and errors">
        <p className="quiet">No results: the problem has errors.</p>
      </section>
    );
  return (
    <section className="table-part" aria-label="Step sizes and errors">
      <ErrorBoundary what="The progress" of={results}>
        <Suspense>
          {isSpoken(results) && (
            <UnderWay computed={results} what="the study" kept="partial results are shown" />
          )}
          {isSpoken(curves) && <UnderWay computed={curves} what="the curves" />}
        </Suspense>
      </ErrorBoundary>
      {rungs.map((rung) =>
        rung.ok ? null : (
          <p key={rung.written} className="wrong">
            {`${rung.written}: ${rung.message}`}
          </p>
        ),
      )}
      {results.value !== null && <Table keyed={results.value} place={place} name={name} />}
    </section>
  );
}
