import type { StudyDocument } from '@schritt/core/document';
import type { RunToDraw, StudyResult } from '@schritt/core/study';
import type { KeyedCurves, KeyedResult } from '@schritt/plot';
import { createContext, useContext, useMemo, useRef, useState } from 'react';
import type {
  Profile,
  ProfileRequest,
  Region,
  RegionRequest,
  RowsWindow,
  RowsRequest,
  SideRows,
  SideRequest,
  Spectrum,
  StepView,
  StepRequest,
} from '../worker/messages.ts';
import { Computer, Superseded } from '../worker/computer.ts';
import { earlyResult } from '../worker/early-study.ts';
import { StudyComputer } from '../worker/study-computer.ts';
import { type Ask, type Computed, type Tell, useComputed, useWork } from '../worker/use-work.ts';

/** What the numbers of a study are known to be when its page is first made; null where they are not known. */
export const KnownResult = createContext<(document: StudyDocument) => StudyResult | null>(earlyResult);

/**
 * Runs the study on workers, or on the server if it is long, whenever it changes; finished rungs are shown as they
 * come.
 */
export function useResults(document: StudyDocument | null, keys: readonly string[]): Computed<KeyedResult> {
  // numbers that were asked for early are in the first picture of the page
  const known = useContext(KnownResult);
  const [first] = useState((): KeyedResult | null => {
    const result = document === null ? null : known(document);
    return result && { result, keys };
  });
  const work = useMemo(() => {
    if (document === null) return null;
    return async (computer: StudyComputer, tell: Tell<KeyedResult>): Promise<KeyedResult> => {
      const result = await computer.run(document, (now) =>
        tell(now.part, now.result === null ? null : { result: now.result, keys }, now.onServer),
      );
      return result === first?.result && keys === first.keys ? first : { result, keys };
    };
  }, [document, keys, first]);
  return useWork(() => new StudyComputer(), work, first);
}

/** Milliseconds that what is no number waits. */
const LATER = 250;

/** What theory knows of the methods of a study, before anything is run. */
export interface Theory {
  /** The proved order in a few words, by the text of the method; null where none is proved. */
  readonly proved: ReadonlyMap<string, string | null>;
  /** The largest h at which the runs of a method do not grow, by key; null where none is known. */
  readonly limits: ReadonlyMap<string, number | null>;
}

const NOTHING_KNOWN: Theory = { proved: new Map(), limits: new Map() };

/** What theory knows of the methods, by a worker of its own: their orders at once, their limits as step sizes later. */
export function useTheory(
  document: StudyDocument | null,
  keys: readonly string[],
  texts: readonly string[],
): Theory {
  const last = useRef({ of: '', theory: NOTHING_KNOWN });
  const turns = useRef(0);
  const work = useMemo(
    () =>
      async (computer: Computer, tell: Tell<Theory>): Promise<Theory> => {
        turns.current += 1;
        const turn = turns.current;
        const of = JSON.stringify(texts);
        if (last.current.of !== of) {
          const orders = await computer.ask('proved', { texts });
          const proved = new Map(texts.map((text, i) => [text, orders[i] ?? null]));
          last.current = { of, theory: { ...last.current.theory, proved } };
          tell(0, last.current.theory);
        }
        if (document === null) return last.current.theory;
        // marks on the ruler: the numbers come first
        await new Promise((done) => setTimeout(done, LATER));
        if (turn !== turns.current) throw new Superseded();
        const found = await computer.ask('limits', { document });
        const limits = new Map(keys.map((key, i) => [key, found[i] ?? null]));
        last.current = { of, theory: { ...last.current.theory, limits } };
        return last.current.theory;
      },
    [document, keys, texts],
  );
  return useWork(() => new Computer(), work).value ?? NOTHING_KNOWN;
}

/** Computes the curves of some runs in a worker of their own. */
export function useCurves(
  document: StudyDocument | null,
  keys: readonly string[],
  runs: readonly RunToDraw[] | null,
): Computed<KeyedCurves> {
  const ask = useMemo((): Ask<KeyedCurves> | null => {
    if (document === null || runs === null) return null;
    return async (computer, progress) => ({
      curves: await computer.ask('curves', { document, runs }, progress),
      keys,
    });
  }, [document, keys, runs]);
  return useComputed(ask);
}

/** All elements of a family at one grid point, by a worker of its own; null for none. */
export function useProfile(
  document: StudyDocument | null,
  profile: ProfileRequest | null,
): Computed<Profile> {
  const ask = useMemo((): Ask<Profile> | null => {
    if (document === null || profile === null) return null;
    return (computer, progress) => computer.ask('profile', { document, profile }, progress);
  }, [document, profile]);
  return useComputed(ask);
}

/** Computes rows of all methods side by side in a worker of their own; null for none. */
export function useSide(document: StudyDocument | null, window: SideRequest | null): Computed<SideRows> {
  const ask = useMemo((): Ask<SideRows> | null => {
    if (document === null || window === null) return null;
    return (computer, progress) => computer.ask('side', { document, window }, progress);
  }, [document, window]);
  return useComputed(ask);
}

/** Works one step out in a worker of its own; null for none. */
export function useStep(document: StudyDocument | null, step: StepRequest | null): Computed<StepView> {
  const ask = useMemo((): Ask<StepView> | null => {
    if (document === null || step === null) return null;
    return (computer, progress) => computer.ask('step', { document, step }, progress);
  }, [document, step]);
  return useComputed(ask);
}

/** The stability region of a method, by a worker of its own; null for none. */
export function useRegion(request: RegionRequest | null): Computed<Region | null> {
  const ask = useMemo((): Ask<Region | null> | null => {
    if (request === null) return null;
    return (computer, progress) => computer.ask('region', request, progress);
  }, [request]);
  return useComputed(ask);
}

/** Eigenvalues of a problem and what they mean for a method of the study, by a worker of its own. */
export function useSpectrum(document: StudyDocument | null, method: number): Computed<Spectrum> {
  const ask = useMemo((): Ask<Spectrum> | null => {
    if (document === null) return null;
    return (computer, progress) => computer.ask('spectrum', { document, method }, progress);
  }, [document, method]);
  return useComputed(ask);
}

/** Computes a window of the steps of one run in a worker of its own; null for no window. */
export function useRows(document: StudyDocument | null, window: RowsRequest | null): Computed<RowsWindow> {
  const ask = useMemo((): Ask<RowsWindow> | null => {
    if (document === null || window === null) return null;
    return (computer, progress) => computer.ask('rows', { document, window }, progress);
  }, [document, window]);
  return useComputed(ask);
}
