import { writeParameters } from '@schritt/core/notation';
import { Button } from 'antd';
import { type ReactNode, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useReading } from '../state/use-reading.ts';
import { problemReader } from '../worker/text-reader.ts';
import { ParameterSliders } from './parameter-sliders.tsx';

/**
 * Sliders for the parameters of a study's problem: the whole page follows them, and the text stays as it is until it is
 * told to take their values.
 */
export function MovedParameters(): ReactNode {
  const { study, edit, parameters, setParameters } = useStudyState(
    'study',
    'edit',
    'parameters',
    'setParameters',
  );
  const { now } = useReading(problemReader, study.problem.text);
  const typed = now.ok ? now.value : null;
  const isMoved = Object.keys(parameters).length > 0;
  const [isOpen, setOpen] = useState(false);
  if (typed === null || typed.parameters.length === 0) return null;
  if (!isOpen && !isMoved)
    return (
      <Button type="link" size="small" onClick={() => setOpen(true)}>
        Sliders for {typed.parameters.length === 1 ? typed.parameters[0]?.name : 'the parameters'}
      </Button>
    );
  const write = (): void => {
    const made = writeParameters(typed, parameters);
    edit('parameters', (now) => ({ ...now, problem: { ...now.problem, text: made } }));
    setParameters({});
  };
  return (
    <>
      <ParameterSliders problem={typed} values={parameters} onChange={setParameters} onWrite={write} />
      {!isMoved && (
        <Button type="link" size="small" onClick={() => setOpen(false)}>
          Hide sliders
        </Button>
      )}
    </>
  );
}
