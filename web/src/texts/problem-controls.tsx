import { hasExact, type ParameterValues, type Problem, writeParameters } from '@schritt/core/notation';
import type { ReactNode } from 'react';
import { ParameterSliders } from '../statement/parameter-sliders.tsx';
import { WishedSolution } from './wished-solution.tsx';

interface ProblemControlsProps {
  readonly problem: Problem;
  readonly values: ParameterValues;
  readonly onValues: (values: ParameterValues) => void;
  readonly onText: (text: string) => void;
}

/** What can be done with a problem beside typing: moving its parameters, and giving it an exact solution. */
export function ProblemControls({ problem, values, onValues, onText }: ProblemControlsProps): ReactNode {
  const canWish = !hasExact(problem) && problem.unknowns.every((u) => u.range === null);
  return (
    <>
      {problem.parameters.length > 0 && (
        <ParameterSliders
          problem={problem}
          values={values}
          onChange={onValues}
          onWrite={() => onText(writeParameters(problem, values))}
        />
      )}
      {canWish && <WishedSolution problem={problem} onMake={onText} />}
    </>
  );
}
