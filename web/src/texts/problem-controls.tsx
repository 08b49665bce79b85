import { hasExact, type ParameterValues, type Problem, writeParameters } from '@schritt/core/notation';
import type { ReactNode } from 'react';
import { ParameterSliders } from '../statement/parameter-sliders.tsx';
import { ManufacturedSolution } from './manufactured-solution.tsx';

interface ProblemControlsProps {
  readonly problem: Problem;
  readonly values: ParameterValues;
  readonly onValues: (values: ParameterValues) => void;
  readonly onText: (text: string) => void;
}

/** What can be done with a problem beside typing: moving its parameters, and giving it an exact solution. */
export function ProblemControls({ problem, values, onValues, onText }: ProblemControlsProps): ReactNode {
  const canManufacture = !hasExact(problem) && problem.unknowns.every((u) => u.range === null);
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
      {canManufacture && <ManufacturedSolution problem={problem} onMake={onText} />}
    </>
  );
}
