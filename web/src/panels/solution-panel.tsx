import { DRAWN_AS, readMeasured } from '@schritt/core/document';
import { Segmented } from 'antd';
import { type ReactNode, useCallback, useMemo } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { type Plot, type Point, solutionPlot } from '@schritt/plot';
import { ComponentChoices, RungChoices } from './plot-head.tsx';
import { useRunView } from './use-run-view.ts';

/** Dots of every run over the exact line; pointing at a dot marks its time everywhere. */
export function SolutionPanel(): ReactNode {
  const {
    independent,
    marked: pointed,
    setMarked,
    view: shownView,
    setView,
    chosen,
    study,
    problem,
  } = useStudyState('independent', 'marked', 'setMarked', 'view', 'setView', 'chosen', 'study', 'problem');
  const switches = useStudyState('hidden', 'toggle');
  const { grid } = chosen;
  // in a step its beginning is marked, unless another time is pointed at
  const marked =
    pointed ?? (shownView.depth === 'step' && grid !== null ? grid.start + shownView.n * grid.h : null);
  const view = useRunView();
  const names = view?.curves.components ?? [];
  const components = view?.curves.components;
  const text = study.measured;
  const [start, end] = [problem?.start ?? null, problem?.end ?? null];
  const measured = useMemo(() => {
    if (text === undefined || components === undefined || start === null || end === null) return [];
    const reading = readMeasured(text, { components, start, end });
    return reading.ok ? reading.series : [];
  }, [text, components, start, end]);
  const together = shownView.together && names.length > 1;
  const plain = useMemo(
    (): Plot | null => view && solutionPlot(view, independent, together, measured),
    [view, independent, together, measured],
  );
  const plot = useMemo(
    (): Plot | null =>
      plain && marked !== null
        ? { ...plain, overlays: [{ kind: 'band', x: marked }, ...plain.overlays] }
        : plain,
    [plain, marked],
  );
  const point = useCallback((at: Point | null) => setMarked(at?.x ?? null), [setMarked]);
  return (
    <>
      <div className="plot-panel-controls">
        <ComponentChoices
          together={{ isShown: together, show: (isShown) => setView({ together: isShown }) }}
        />
        <Segmented
          size="small"
          aria-label="Draw runs as"
          value={shownView.drawn ?? 'auto'}
          options={[{ value: 'auto', label: 'auto' }, ...DRAWN_AS.map((value) => ({ value, label: value }))]}
          onChange={(value) => setView({ drawn: DRAWN_AS.find((one) => one === value) ?? null })}
        />
        <RungChoices />
      </div>
      {plot === null ? (
        <div className="plot" />
      ) : (
        <PlotCanvas plot={plot} switches={switches} onPoint={point} />
      )}
    </>
  );
}
