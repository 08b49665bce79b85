import { componentNames, type Problem } from '@schritt/core/notation';
import type { ErrorChoice } from '@schritt/core/study';
import { InputNumber, Select } from 'antd';
import type { ReactNode } from 'react';
import './run-settings.css';

type Where = 'end' | 'max' | 'rms' | 'local' | 'time';

const WHERE = [
  { value: 'end', label: 'error at the end' },
  { value: 'time', label: 'error at a time' },
  { value: 'max', label: 'largest error' },
  { value: 'rms', label: 'root mean square' },
  { value: 'local', label: 'error of one step' },
] satisfies readonly { value: Where; label: string }[];

const SCALES = [
  { value: 'absolute', label: 'absolute' },
  { value: 'relative', label: 'relative' },
  { value: 'digits', label: 'digits that agree' },
  { value: 'places', label: 'decimal places' },
] satisfies readonly { value: ErrorChoice['scale']; label: string }[];

/** Components that can be chosen from a list. */
const MOST_LISTED = 200;

interface ErrorSettingsProps {
  readonly problem: Problem | null;
  readonly error: ErrorChoice;
  readonly onChange: (error: ErrorChoice) => void;
}

/** Where the error of a study is taken, of what, and how it is told. */
export function ErrorSettings({ problem, error, onChange }: ErrorSettingsProps): ReactNode {
  const { at, of, scale } = error;
  const where: Where = typeof at === 'object' ? 'time' : at;
  const [start, end] = [problem?.start ?? 0, problem?.end ?? 1];
  const components = problem === null ? [] : componentNames(problem).slice(0, MOST_LISTED);
  return (
    <section className="run-settings" aria-label="How the error is taken">
      <h2 className="label">Error</h2>
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Where the error is taken"
        value={where}
        options={WHERE}
        onChange={(value) =>
          onChange({ ...error, at: value === 'time' ? { t: start + (end - start) / 2 } : value })
        }
      />
      {typeof at === 'object' && (
        <span className="time-of-error">
          <span aria-hidden="true">{problem?.independent ?? 't'} =</span>
          <InputNumber
            size="small"
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
            { value: 'norm', label: 'of all, Euclidean norm' },
            ...components.map((name) => ({ value: name, label: `of ${name}` })),
          ]}
          onChange={(value) => onChange({ ...error, of: value })}
        />
      )}
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="How the error is told"
        value={scale}
        options={SCALES}
        onChange={(value) => onChange({ ...error, scale: value })}
      />
    </section>
  );
}
