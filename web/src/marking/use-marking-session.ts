import { useCallback, useEffect, useRef, useState } from 'react';
import { keepSession, keptSession, type MarkingSession, NEW_SESSION } from './marking-session.ts';

/** The session of the page: as it was left, changed by parts, kept in this browser. */
export function useMarkingSession(study: string | null): {
  /** Null until it is read. */
  readonly session: MarkingSession | null;
  readonly change: (part: Partial<MarkingSession>) => void;
} {
  const [session, setSession] = useState<MarkingSession | null>(null);
  const first = useRef(study);
  useEffect(() => {
    let isLeft = false;
    void keptSession().then((kept) => {
      if (isLeft) return;
      const found = kept ?? NEW_SESSION;
      const asked = first.current;
      setSession(
        asked === null || asked === found.study
          ? found
          : { ...found, study: asked, method: 0, size: NEW_SESSION.size, roles: {}, sheets: {} },
      );
    });
    return () => {
      isLeft = true;
    };
  }, []);
  // kept at once: a page that is closed a moment later loses nothing
  useEffect(() => {
    if (session !== null) void keepSession(session);
  }, [session]);
  const change = useCallback(
    (part: Partial<MarkingSession>) => setSession((now) => now && { ...now, ...part }),
    [],
  );
  return { session, change };
}
