import type { ReactNode } from 'react';

/** One of several ways to look through a lens. */
export interface LensChoice {
  readonly key: string;
  readonly label: string;
  readonly isChosen: boolean;
  readonly choose: () => void;
}

/** The ways to look through a lens, in a line of their own. */
export function LensChoices({ choices }: { readonly choices: readonly LensChoice[] }): ReactNode {
  if (choices.length === 0) return null;
  return (
    <div className="lens-choices">
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
