import { Button, Segmented, Select } from 'antd';
import type { ReactNode } from 'react';
import { useStudyState } from '../state/study-state.ts';

/** Components up to which all of them are in sight. */
const MAX_SEGMENTS = 6;

/** What represents all components together; no name of a component begins with a star. */
const ALL = '*';

/** The components to choose from in a plot panel; none where there is one. */
export function ComponentChoices({
  together,
}: {
  /** For a panel that can show all components together: whether it does, and how to switch. */
  readonly together?: { readonly isShown: boolean; readonly show: (together: boolean) => void };
}): ReactNode {
  const { curves, component } = useStudyState('curves', 'component');
  const names = curves.value?.curves.components ?? [];
  if (names.length < 2) return null;
  const shown = names[Math.min(component.wanted, names.length - 1)] ?? '';
  const value = together?.isShown === true ? ALL : shown;
  const choose = (name: string): void => {
    if (name !== ALL) component.choose(names.indexOf(name));
    together?.show(name === ALL);
  };
  const options = [
    ...names.map((name) => ({ value: name, label: name })),
    ...(together === undefined ? [] : [{ value: ALL, label: 'all' }]),
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
}

/** Where several rungs are ticked: of which method they are drawn, and the way back. */
export function RungChoices(): ReactNode {
  const { view, setView, good, methods } = useStudyState('view', 'setView', 'good', 'methods');
  if (view.ticked.length === 0) return null;
  return (
    <span className="rung-choices">
      <span className="quiet">step sizes of</span>
      <Select
        size="small"
        popupMatchSelectWidth={false}
        variant="borderless"
        aria-label="Method whose step sizes are drawn"
        value={Math.min(view.method, Math.max(0, good.keys.length - 1))}
        options={good.keys.map((key, place) => ({ value: place, label: methods.titleOf(key) }))}
        onChange={(method) => setView({ method })}
      />
      <Button type="text" size="small" onClick={() => setView({ ticked: [] })}>
        all methods
      </Button>
    </span>
  );
}
