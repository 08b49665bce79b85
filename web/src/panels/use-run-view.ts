import { drawnAs, type RunView } from '@schritt/plot';
import { useMemo } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import { usePalette } from '../theme/use-palette.ts';

/** What the plots of runs are made from; null before there are curves. */
export function useRunView(): RunView | null {
  const { curves, methods, component } = useStudyState('curves', 'methods', 'component');
  const drawn = useStudyValue(({ view }) => view.drawn);
  const palette = usePalette();
  const keyed = curves.value;
  const { placeOf, titleOf } = methods;
  const shown = Math.min(component.wanted, Math.max(0, (keyed?.curves.components.length ?? 1) - 1));
  return useMemo(
    () =>
      keyed && {
        curves: keyed.curves,
        ...drawnAs(keyed, placeOf, titleOf, palette),
        component: shown,
        drawn,
        palette,
      },
    [keyed, placeOf, titleOf, shown, drawn, palette],
  );
}
