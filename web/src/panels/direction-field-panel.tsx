import { componentNames } from '@schritt/core/notation';
import { type ReactNode, useMemo } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useWorkedStep } from '../state/use-worked-step.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { methodMark } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';
import { directionFieldPlot } from './direction-field-plot.ts';

/** The chosen step: where its stages looked at the slope, and the step that was taken. */
export function DirectionFieldPanel(): ReactNode {
  const { problem, independent, played, good, methods } = useStudyState(
    'problem',
    'independent',
    'played',
    'good',
    'methods',
  );
  const { value, why } = useWorkedStep();
  const palette = usePalette();
  const names = useMemo(() => (problem === null ? [] : componentNames(problem)), [problem]);
  const plot = useMemo(() => {
    if (value === null) return null;
    const { lines, slopes: looks } = value.worked;
    const given = played === null ? lines : lines.slice(0, played);
    const stages = given.filter(({ gives }) => gives !== null && !gives.endsWith('[n+1]')).length;
    const isWhole = played === null || played >= lines.length;
    return directionFieldPlot(value, {
      independent,
      name: names[value.component] ?? '',
      color: methodMark(palette, methods.placeOf(good.keys[value.method] ?? '')).color,
      palette,
      shown: { looks: isWhole ? looks.length : Math.min(stages, looks.length), step: isWhole },
    });
  }, [value, played, names, independent, palette, good.keys, methods]);
  return (
    <>
      {why !== null && <p className="wrong nothing">{why}</p>}
      {plot === null ? <div className="plot" /> : <PlotCanvas plot={plot} />}
    </>
  );
}
