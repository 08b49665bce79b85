// What others use of marking: a student's rows beside the right run, and the mistakes that reproduce them.
export { type Marking, markColumn, type MarkRequest } from './marking/mark-column.ts';
export { markClass, type StudentMarking } from './marking/mark-class.ts';
export { type MarkingJson, markingJson } from './marking/marking-json.ts';
