import { componentName, type Problem } from '@schritt/core/notation';
import { ERROR_MEASURES, type ErrorChoice, MEASURE_NAMES, type MeasureName } from '@schritt/core/study';
import { InputNumber, Select } from 'antd';
import { memo, type ReactNode } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import './run-settings.css';

type Where = MeasureName | 'time';

const WHERE: readonly { readonly value: Where; readonly label: string }[] = [
  ...MEASURE_NAMES.map((name) => ({ value: name, label: ERROR_MEASURES[name].label })),
  { value: 'time', label: 'error at time t' },
];

/** How errors are reported, as it is listed. */
export const SCALES = [
  { value: 'absolute', label: 'absolute' },
  { value: 'relative', label: 'relative' },
  { value: 'digits', label: 'correct significant digits' },
  { value: 'places', label: 'correct decimal places' },
] satisfies readonly { value: ErrorChoice['scale']; label: string }[];

/** Components that can be chosen from a list. */
const MAX_LISTED = 200;

function firstComponents(problem: Problem | null): readonly string[] {
  if (problem === null) return [];
  return Array.from({ length: Math.min(problem.size, MAX_LISTED) }, (_, i) => componentName(problem, i));
}

/** Where the error of a study is taken, of what, and how it is reported. */
export const ErrorSettings = memo(function ErrorSettings(): ReactNode {
  const { error, edit, independent } = useStudyState('error', 'edit', 'independent');
  const [start, end] = useStudyValue(({ problem }) => [problem?.start ?? 0, problem?.end ?? 1] as const);
  const components = useStudyValue(({ problem }) => firstComponents(problem));
  const onChange = (next: ErrorChoice): void => edit('error', (now) => ({ ...now, error: next }));
  const { at, of, scale } = error;
  const where: Where = typeof at === 'object' ? 'time' : at;
  return (
    <section className="run-settings" aria-label="Error settings">
      <h2 className="label">Error</h2>
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Error measure"
        value={where}
        options={[...WHERE]}
        onChange={(value) =>
          onChange({ ...error, at: value === 'time' ? { t: start + (end - start) / 2 } : value })
        }
      />
      {typeof at === 'object' && (
        <span className="time-of-error">
          <span aria-hidden="true">{independent} =</span>
          <InputNumber
            size="small"
            controls={false}
            aria-label="Time of the error"
            min={start}
            max={end}
            value={at.t}
            onChange={(t) => {
              if (t !== null) onChange({ ...error, at: { t } });
            }}
          />
        </span>
      )}
      {components.length > 1 && (
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Component of the error"
          value={of}
          options={[
            { value: 'norm', label: 'all components, Euclidean norm' },
            ...components.map((name) => ({ value: name, label: name })),
          ]}
          onChange={(value) => onChange({ ...error, of: value })}
        />
      )}
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Error scale"
        value={scale}
        options={SCALES}
        onChange={(value) => onChange({ ...error, scale: value })}
      />
    </section>
  );
});
