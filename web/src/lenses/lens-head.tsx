import type { ReactNode } from 'react';
import { PickList } from '../controls/pick-list.tsx';
import { useDesk } from '../desk/desk.ts';

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

/** The components as choices of a lens; none where there is one. */
export function ComponentChoices({
  isNone = false,
  onChoose,
}: {
  /** Whether none of them is the chosen one. */
  readonly isNone?: boolean;
  readonly onChoose?: () => void;
}): ReactNode {
  const { curves, component } = useDesk();
  const names = curves.value?.curves.components ?? [];
  if (names.length < 2) return null;
  const shown = Math.min(component.wanted, names.length - 1);
  return (
    <LensChoices
      choices={names.map((name, i) => ({
        key: name,
        label: name,
        isChosen: !isNone && i === shown,
        choose: () => {
          component.choose(i);
          onChoose?.();
        },
      }))}
    />
  );
}

/** Where several rungs are ticked: of which method they are drawn, and the way back. */
export function RungChoices(): ReactNode {
  const { view, setView, good, methods } = useDesk();
  if (view.ticked.length === 0) return null;
  return (
    <span className="rung-choices">
      <span className="quiet">rungs of</span>
      <PickList
        isBare
        label="Method whose rungs are drawn"
        value={Math.min(view.method, Math.max(0, good.keys.length - 1))}
        options={good.keys.map((key, place) => ({ value: place, label: methods.titleOf(key) }))}
        onChange={(method) => setView({ method })}
      />
      <button type="button" className="plain-button quiet" onClick={() => setView({ ticked: [] })}>
        all methods
      </button>
    </span>
  );
}
