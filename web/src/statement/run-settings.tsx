import { useReader } from '../state/use-reading.ts';
import { methodReader } from '../worker/text-reader.ts';
import type { LastStep, Precision } from '@schritt/core/study';
import { Select } from 'antd';
import type { ReactNode } from 'react';
import type { WorkingStudy } from '../state/working-study.ts';
import './run-settings.css';

/** The arithmetics, as they are listed. */
export const PRECISIONS = [
  { value: 'double', label: 'double precision' },
  { value: 'single', label: 'single precision' },
] satisfies readonly { value: Precision; label: string }[];

/** What is done where h does not divide the interval, as it is listed. */
export const LAST_STEPS = [
  { value: 'fit', label: 'adjust h to fit' },
  { value: 'shorten', label: 'shorten the last step' },
  { value: 'overrun', label: 'overshoot' },
] satisfies readonly { value: LastStep; label: string }[];

interface RunSettingsProps {
  readonly study: WorkingStudy;
  readonly onChange: (about: string, change: (study: WorkingStudy) => WorkingStudy) => void;
}

/** How the runs of a study are done: the arithmetic, what happens at the end, and the first steps. */
export function RunSettings({ study, onChange }: RunSettingsProps): ReactNode {
  const { methods, start } = study;
  const texts = useReader(methodReader);
  const reachesBack = methods.some(({ text }) => {
    const reading = texts.read(text);
    return reading?.ok === true && reading.value.depth > 0;
  });
  const starts = [
    { value: '', label: 'as specified by the method' },
    { value: 'exact', label: 'exact values' },
    ...[...new Set([...methods.map((m) => m.title), 'Euler', 'Heun', 'RK4'])].map((title) => ({
      value: title,
      label: title,
    })),
  ];
  const setStart = ({ start: previous, ...rest }: WorkingStudy, value: string): WorkingStudy =>
    value === '' ? rest : { ...rest, start: value };
  return (
    <section className="run-settings" aria-label="Run settings">
      <h2 className="label">Run settings</h2>
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Arithmetic"
        value={study.precision ?? 'double'}
        options={PRECISIONS}
        onChange={(precision) => onChange('precision', (now) => ({ ...now, precision }))}
      />
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Where h does not divide the interval"
        value={study.lastStep ?? 'fit'}
        options={LAST_STEPS}
        onChange={(lastStep) => onChange('last step', (now) => ({ ...now, lastStep }))}
      />
      {reachesBack && (
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Starting values"
          value={start ?? ''}
          options={starts}
          onChange={(value) => onChange('start', (now) => setStart(now, value))}
        />
      )}
    </section>
  );
}
