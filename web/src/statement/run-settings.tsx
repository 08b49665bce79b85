import { useReader } from '../state/use-reading.ts';
import { methodReader } from '../worker/text-reader.ts';
import { arithmeticFields } from '@schritt/core/document';
import type { LastStep } from '@schritt/core/study';
import { Select } from 'antd';
import { memo, type ReactNode } from 'react';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import { withArithmetic, type WorkingStudy } from '../state/working-study.ts';
import { ArithmeticChoice } from './arithmetic-choice.tsx';
import './run-settings.css';

/** What is done where h does not divide the interval, as it is listed. */
export const LAST_STEPS = [
  { value: 'fit', label: 'adjust h to fit' },
  { value: 'shorten', label: 'shorten the last step' },
  { value: 'overrun', label: 'overshoot' },
] satisfies readonly { value: LastStep; label: string }[];

/** How the runs of a study are done: the arithmetic, what happens at the end, and the first steps. */
export const RunSettings = memo(function RunSettings(): ReactNode {
  const { edit } = useStudyState('edit');
  const { methods, start, lastStep } = useStudyValue(({ study }) => ({
    methods: study.methods,
    start: study.start,
    lastStep: study.lastStep,
  }));
  const arithmetic = useStudyValue(({ study }) => arithmeticFields(study));
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
      <ArithmeticChoice
        value={arithmetic}
        ofMethod={false}
        label="Arithmetic"
        onChange={(fields) => edit('precision', (now) => withArithmetic(now, fields))}
      />
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Where h does not divide the interval"
        value={lastStep ?? 'fit'}
        options={LAST_STEPS}
        onChange={(next) => edit('last step', (now) => ({ ...now, lastStep: next }))}
      />
      {reachesBack && (
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Starting values"
          value={start ?? ''}
          options={starts}
          onChange={(value) => edit('start', (now) => setStart(now, value))}
        />
      )}
    </section>
  );
});
