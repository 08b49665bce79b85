import { DRAWN_AS, readMeasured } from '@schritt/core/document';
import { Segmented } from 'antd';
import { memo, type ReactNode, useCallback, useMemo } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import { type Plot, type Point, solutionPlot } from '@schritt/plot';
import { ComponentChoices, RungChoices } from './plot-head.tsx';
import { useRunView } from './use-run-view.ts';

/** Whether runs are dots, lines or both. */
const DrawnChoice = memo(function DrawnChoice(): ReactNode {
  const { setView } = useStudyState('setView');
  const drawn = useStudyValue(({ view }) => view.drawn);
  return (
    <Segmented
      size="small"
      aria-label="Draw runs as"
      value={drawn ?? 'auto'}
      options={[{ value: 'auto', label: 'auto' }, ...DRAWN_AS.map((value) => ({ value, label: value }))]}
      onChange={(value) => setView({ drawn: DRAWN_AS.find((one) => one === value) ?? null })}
    />
  );
});

/** Dots of every run over the exact line; pointing at a dot marks its time everywhere. */
export function SolutionPanel(): ReactNode {
  const { independent, setMarked } = useStudyState('independent', 'setMarked');
  const start = useStudyValue(({ problem }) => problem?.start ?? null);
  const end = useStudyValue(({ problem }) => problem?.end ?? null);
  const switches = useStudyState('hidden', 'toggle');
  // in a step its beginning is marked, unless another time is pointed at
  const marked = useStudyValue(
    ({ marked: pointed, view: { depth, n }, chosen: { grid } }) =>
      pointed ?? (depth === 'step' && grid !== null ? grid.start + n * grid.h : null),
  );
  const areTogether = useStudyValue(({ view }) => view.together);
  const text = useStudyValue(({ study }) => study.measured);
  const view = useRunView();
  const names = view?.curves.components ?? [];
  const components = view?.curves.components;
  const measured = useMemo(() => {
    if (text === undefined || components === undefined || start === null || end === null) return [];
    const reading = readMeasured(text, { components, start, end });
    return reading.ok ? reading.series : [];
  }, [text, components, start, end]);
  const together = areTogether && names.length > 1;
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
        <ComponentChoices canTogether />
        <DrawnChoice />
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
