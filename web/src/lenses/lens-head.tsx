import type { ReactNode } from 'react';

/** One of several ways to look through a lens. */
export interface LensChoice {
  readonly key: string;
  readonly label: string;
  readonly isChosen: boolean;
  readonly choose: () => void;
}

/** The name of a lens and the ways to look through it. */
export function LensHead({
  title,
  choices,
}: {
  readonly title: string;
  readonly choices: readonly LensChoice[];
}): ReactNode {
  return (
    <div className="lens-head">
      <h2>{title}</h2>
      {choices.map(({ key, label, isChosen, choose }) => (
        <button
          key={key}
          type="button"
          className="plain-button component"
          aria-pressed={isChosen}
          onClick={choose}
        >
          {label}
        </button>
      ))}
    </div>
  );
}
