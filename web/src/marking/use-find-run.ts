import type { StudyDocument } from '@schritt/core/document';
import type { FoundRun, RunChoice } from '@schritt/core/marking';
import { stepSizeText } from '@schritt/core/text';
import { useEffect, useRef, useState } from 'react';
import { type EntryRow, loadEntry } from '../api/client.ts';
import { Computer, Superseded } from '../worker/computer.ts';
import { type MarkingSession, submittedOf } from './marking-session.ts';

/** A search for the run that rows belong to. */
export interface RunFinding {
  /** The part of the search that is done; null where none is under way. */
  readonly part: number | null;
  /** What came of the last one. */
  readonly said: { readonly isFound: boolean; readonly text: string } | null;
  /** Looks in one study; in all of them for null. */
  readonly find: (study: string | null) => void;
  readonly cancel: () => void;
}

interface Candidate {
  readonly id: string;
  readonly document: StudyDocument;
}

function runText(candidates: readonly Candidate[], { study, method, gridRequest }: RunChoice): string {
  const document = candidates[study]?.document;
  const size = 'h' in gridRequest ? `h = ${stepSizeText(gridRequest.h)}` : `N = ${gridRequest.steps}`;
  const own = `${document?.methods[method]?.title ?? ''}, ${size}`;
  return candidates.length > 1 ? `${document?.title ?? ''}: ${own}` : own;
}

/** Other runs that are named. */
const MAX_NAMED = 3;

function foundText(candidates: readonly Candidate[], found: FoundRun): string {
  const { right, near, of, equals } = found;
  const others = equals.slice(0, MAX_NAMED).map((one) => runText(candidates, one));
  const more = equals.length > MAX_NAMED ? ` and ${equals.length - MAX_NAMED} more` : '';
  return `${runText(candidates, found)}: ${right} of ${of} rows agree, ${near} with the students’ own rows.${
    others.length === 0 ? '' : ` As many agree with ${others.join('; ')}${more}.`
  }`;
}

/** Finds the study, method and step size with which most rows agree, on a worker. */
export function useFindRun(
  session: MarkingSession,
  studies: readonly EntryRow[] | null,
  change: (part: Partial<MarkingSession>) => void,
): RunFinding {
  const worker = useRef<Computer | null>(null);
  const [part, setPart] = useState<number | null>(null);
  const [said, setSaid] = useState<RunFinding['said']>(null);
  useEffect(
    () => () => {
      worker.current?.close();
      worker.current = null;
    },
    [],
  );
  const search = async (study: string | null): Promise<void> => {
    const files = submittedOf(session);
    if (files.length === 0) {
      setSaid({ isFound: false, text: 'There are no rows yet: paste them, or open files.' });
      return;
    }
    setSaid(null);
    setPart(0);
    const ids = study === null ? (studies ?? []).map(({ id }) => id) : [study];
    const loaded = await Promise.all(
      ids.map(async (id): Promise<readonly Candidate[]> => {
        // a study that cannot be read is none that rows are of
        const entry = await loadEntry('study', id).catch(() => null);
        return entry === null || entry.document.methods.length === 0
          ? []
          : [{ id, document: entry.document }];
      }),
    );
    const candidates = loaded.flat();
    worker.current ??= new Computer();
    const found = await worker.current.ask(
      'foundRun',
      {
        documents: candidates.map(({ document }) => document),
        files,
        layout: session.layout,
        reading: session.reading,
      },
      setPart,
    );
    setPart(null);
    const own = found === null ? undefined : candidates[found.study];
    if (found === null || own === undefined) {
      setSaid({ isFound: false, text: 'The rows agree with no run of these studies.' });
      return;
    }
    const { gridRequest, method } = found;
    change({
      study: own.id,
      method,
      size:
        'h' in gridRequest
          ? { kind: 'h', text: String(gridRequest.h) }
          : { kind: 'N', text: String(gridRequest.steps) },
      ...(own.id === session.study ? {} : { roles: {}, sheets: {} }),
    });
    setSaid({ isFound: true, text: foundText(candidates, found) });
  };
  return {
    part,
    said,
    find: (study) => {
      search(study).catch((thrown: unknown) => {
        setPart(null);
        if (!(thrown instanceof Superseded))
          setSaid({ isFound: false, text: thrown instanceof Error ? thrown.message : String(thrown) });
      });
    },
    cancel: () => {
      worker.current?.cancel();
      setPart(null);
    },
  };
}
