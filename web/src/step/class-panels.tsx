import { Button } from 'antd';
import type { ReactNode } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { type Panel, PANELS, USUAL_PANELS } from '../state/view.ts';

/** Which panels are beside the large plot in the presentation view; by click, or by key. */
export function ClassPanels(): ReactNode {
  const { view, setView } = useStudyState('view', 'setView');
  const shown = view.panels ?? USUAL_PANELS[view.depth];
  return (
    <div className="class-panels" role="group" aria-label="Panels">
      {PANELS.filter(({ name }) => name !== 'words' || view.depth !== 'run').map(({ name, label, key }) => (
        <Button
          type="text"
          size="small"
          key={name}
          aria-pressed={shown.includes(name)}
          title={`${label} (${key})`}
          onClick={() => setView({ panels: toggled(shown, name) })}
        >
          {label}
        </Button>
      ))}
      <Button
        type="text"
        size="small"
        title="Leave the presentation view (c)"
        onClick={() => setView({ inClass: false })}
      >
        ×
      </Button>
    </div>
  );
}

/** The panels with one more or one less, in their order. */
export function toggled(shown: readonly Panel[], panel: Panel): readonly Panel[] {
  return PANELS.flatMap(({ name }) => (shown.includes(name) !== (name === panel) ? [name] : []));
}
