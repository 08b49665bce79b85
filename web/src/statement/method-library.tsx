import { lazy, type ReactNode } from 'react';
import { FromLibrary } from './from-library.tsx';

const fetch = async () => ({ default: (await import('./method-search.tsx')).MethodSearch });
const MethodSearch = lazy(fetch);

/** Takes a method of the library into a study. */
export function MethodLibrary({
  onUse,
}: {
  readonly onUse: (title: string, text: string) => void;
}): ReactNode {
  return (
    <FromLibrary
      text="Add from library"
      label="Add from library"
      fetch={fetch}
      list={(close) => <MethodSearch onUse={onUse} onClose={close} />}
    />
  );
}
