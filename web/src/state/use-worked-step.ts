import { createContext, useContext } from 'react';
import type { StepView } from '../worker/messages.ts';
import type { Computed } from '../worker/use-work.ts';

export const WorkedStepContext = createContext<Computed<StepView> | null>(null);

/** The chosen step computed, for all parts of the page that show it. */
export function useWorkedStep(): Computed<StepView> {
  const step = useContext(WorkedStepContext);
  if (step === null) throw new Error('this part of the page has no step');
  return step;
}
