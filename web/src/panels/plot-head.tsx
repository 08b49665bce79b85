import { Button, Segmented, Select } from 'antd';
import { memo, type ReactNode } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';

/** Components up to which all of them are in sight. */
const MAX_SEGMENTS = 6;

/** What represents all components together; no name of a component begins with a star. */
const ALL = '*';

const NONE: readonly string[] = [];

/** The components to choose from in a plot panel; none where there is one. */
export const ComponentChoices = memo(function ComponentChoices({
  canTogether,
}: {
  /** Whether the panel can show all components together. */
  readonly canTogether: boolean;
}): ReactNode {
  const { component, setView } = useStudyState('component', 'setView');
  const names = useStudyValue(({ curves }) => curves.value?.curves.components ?? NONE);
  const areTogether = useStudyValue(({ view }) => view.together) && canTogether;
  if (names.length < 2) return null;
  const shown = names[Math.min(component.wanted, names.length - 1)] ?? '';
  const value = areTogether ? ALL : shown;
  const choose = (name: string): void => {
    if (name !== ALL) component.choose(names.indexOf(name));
    if (canTogether) setView({ together: name === ALL });
  };
  const options = [
    ...names.map((name) => ({ value: name, label: name })),
    ...(canTogether ? [{ value: ALL, label: 'all' }] : []),
  ];
  return names.length <= MAX_SEGMENTS ? (
    <Segmented size="small" aria-label="Component" options={options} value={value} onChange={choose} />
  ) : (
    <Select
      size="small"
      popupMatchSelectWidth={false}
      aria-label="Component"
      options={options}
      value={value}
      onChange={choose}
    />
  );
});

/** Where several rungs are ticked: of which method they are drawn, and the way back. */
export const RungChoices = memo(function RungChoices(): ReactNode {
  const { setView, methods } = useStudyState('setView', 'methods');
  const { areTicked, method } = useStudyValue(({ view }) => ({
    areTicked: view.ticked.length > 0,
    method: view.method,
  }));
  const keys = useStudyValue(({ good }) => good.keys);
  if (!areTicked) return null;
  return (
    <span className="rung-choices">
      <span className="quiet">step sizes of</span>
      <Select
        size="small"
        popupMatchSelectWidth={false}
        variant="borderless"
        aria-label="Method whose step sizes are drawn"
        value={Math.min(method, Math.max(0, keys.length - 1))}
        options={keys.map((key, place) => ({ value: place, label: methods.titleOf(key) }))}
        onChange={(next) => setView({ method: next })}
      />
      <Button type="text" size="small" onClick={() => setView({ ticked: [] })}>
        all methods
      </Button>
    </span>
  );
});
