import { type ReactNode, useCallback, useMemo } from 'react';
import { useDesk } from '../desk/desk.ts';
import { PictureCanvas } from '../pictures/picture-canvas.tsx';
import type { Picture, Point } from '../pictures/picture.ts';
import { usePalette } from '../theme/use-palette.ts';
import { LensChoices } from './lens-head.tsx';
import { solutionFrame, solutionSeries } from './solution-picture.ts';

/** Dots of every method over the exact line, at the chosen step size; pointing at a dot marks its time everywhere. */
export function SolutionLens(): ReactNode {
  const {
    curves,
    methods,
    independent,
    component,
    marked: pointed,
    setMarked,
    view: shownView,
    chosen,
  } = useDesk();
  const { grid } = chosen;
  // in a step its beginning is marked, unless another time is pointed at
  const marked =
    pointed ?? (shownView.depth === 'step' && grid !== null ? grid.start + shownView.n * grid.h : null);
  const palette = usePalette();
  const keyed = curves.value;
  const { placeOf, titleOf } = methods;
  const names = keyed?.curves.components ?? [];
  const shown = Math.min(component.wanted, Math.max(0, names.length - 1));
  const view = useMemo(
    () => keyed && { keyed, placeOf, titleOf, component: shown, palette },
    [keyed, placeOf, titleOf, shown, palette],
  );
  const plain = useMemo(
    (): Picture | null => view && { ...solutionFrame(view, independent), series: solutionSeries(view) },
    [view, independent],
  );
  const picture = useMemo(
    (): Picture | null =>
      plain && marked !== null
        ? { ...plain, overlays: [{ kind: 'band', x: marked }, ...plain.overlays] }
        : plain,
    [plain, marked],
  );
  const point = useCallback((at: Point | null) => setMarked(at?.x ?? null), [setMarked]);
  return (
    <>
      <LensChoices
        choices={
          names.length < 2
            ? []
            : names.map((name, i) => ({
                key: name,
                label: name,
                isChosen: i === shown,
                choose: () => component.choose(i),
              }))
        }
      />
      <div className="picture">{picture !== null && <PictureCanvas picture={picture} onPoint={point} />}</div>
    </>
  );
}
