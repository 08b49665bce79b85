import { ordinal } from '@schritt/core/text';
import { componentNames } from '@schritt/core/notation';
import { Checkbox, Input, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { gridPointAt } from './rows-asked.ts';
import { MAX_TOGETHER, type RunRows, TIMES } from './use-run-rows.ts';

/** Components that can be chosen at most: those whose curves are kept. */
const MAX_COMPONENTS = 12;

/** What represents several components among their places. */
const ALL = -1;

/** Every k-th row, for the k that can be chosen. */
const STRIDES = [1, 2, 4, 5, 10, 16, 20, 50, 100, 1000];

function strideLabel(stride: number): string {
  return stride === 1 ? 'every row' : `every ${ordinal(stride)} row`;
}

/** The times whose rows are shown, as they are typed. */
function TimesInput({ shown: { times, setTimes, byTimes } }: { readonly shown: RunRows }): ReactNode {
  const isWrong = byTimes !== null && 'why' in byTimes;
  return (
    <Input
      size="small"
      className="go-to"
      aria-label="Times of the rows"
      placeholder="0.5, 1, ..., 8"
      value={times}
      aria-invalid={isWrong}
      status={isWrong ? 'error' : ''}
      onChange={(event) => setTimes(event.target.value)}
    />
  );
}

/** A grid point or a time to go to. */
function PointInput({ shown }: { readonly shown: RunRows }): ReactNode {
  const { chosen, independent } = useStudyState('chosen', 'independent');
  const [asked, setAsked] = useState('');
  const point = chosen.grid === null ? null : gridPointAt(asked, independent, chosen.grid);
  const isWrong = asked !== '' && chosen.grid !== null && point === null;
  return (
    <Input
      size="small"
      className="go-to"
      aria-label="Go to n or time"
      placeholder={`n = 12 or ${independent} = 0.5`}
      value={asked}
      aria-invalid={isWrong}
      status={isWrong ? 'error' : ''}
      onChange={(event) => setAsked(event.target.value)}
      onPressEnter={() => {
        if (point !== null) shown.goTo(point);
      }}
    />
  );
}

/** Which rows are shown: of which method and component, how far apart, from where. */
export function RowsChoice({ shown }: { readonly shown: RunRows }): ReactNode {
  const { problem, component } = useStudyState('problem', 'component');
  const names = useMemo(
    () => (problem === null ? [] : componentNames(problem).slice(0, MAX_COMPONENTS)),
    [problem],
  );
  const { methods, method, stride, steps } = shown;
  return (
    <>
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Methods whose rows are shown"
        value={methods[method]?.key ?? 'all'}
        options={[
          { value: 'all', label: 'all methods' },
          ...methods.map(({ key: value, title }) => ({ value, label: `${title}, all stages` })),
        ]}
        onChange={shown.chooseMethod}
      />
      {names.length > 1 && method < 0 && (
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Component"
          value={shown.together ? ALL : Math.min(component.wanted, names.length - 1)}
          options={[
            ...names.map((label, value) => ({ value, label })),
            { value: ALL, label: names.length > MAX_TOGETHER ? `first ${MAX_TOGETHER}` : 'all' },
          ]}
          onChange={(place) => {
            shown.setTogether(place === ALL);
            if (place !== ALL) component.choose(place);
          }}
        />
      )}
      {method < 0 && (
        <Checkbox checked={shown.stages} onChange={(event) => shown.setStages(event.target.checked)}>
          stages
        </Checkbox>
      )}
      <Select
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Which rows"
        value={stride}
        options={[
          ...STRIDES.filter((k) => k === 1 || k < steps).map((value) => ({
            value,
            label: strideLabel(value),
          })),
          { value: TIMES, label: 'at given times' },
        ]}
        onChange={shown.setStride}
      />
      {stride === TIMES ? <TimesInput shown={shown} /> : <PointInput shown={shown} />}
    </>
  );
}
