// What is shown of a study beside its ruler and its table: components, formulas and plots take four fifths of the code.
export { LeaveGuard } from '../entries/leave-guard.tsx';
export { UnsavedOffer } from '../entries/unsaved-offer.tsx';
export { PlotFrame } from '../panels/plot-frame.tsx';
export { ComparisonPart } from '../sentences/comparison-part.tsx';
export { FindingsList } from '../sentences/findings-list.tsx';
export { StatementColumn } from '../statement/statement-column.tsx';
export { ClassPanels } from '../step/class-panels.tsx';
export { KeyList } from '../step/key-list.tsx';
export { StepHead } from '../step/step-head.tsx';
export { WorkedPart } from '../step/worked-part.tsx';
export { RunPart } from '../tables/run-part.tsx';
export { StudyBar } from './study-bar.tsx';
