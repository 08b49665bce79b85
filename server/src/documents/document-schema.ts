import { documentSchemas as schemas } from '@schritt/core/format';

/** Where an OpenAPI document keeps named parts. */
const PREFIX = '#/components/schemas/';

/**
 * The file format as schemas of an OpenAPI document: `StudyDocument`, `ProblemDocument`, `MethodDocument` and their
 * parts.
 */
export function documentSchemas(): Readonly<Record<string, object>> {
  return schemas(PREFIX);
}

/** A document of any kind, as a property of a body. */
export const ANY_DOCUMENT = {
  description: 'a document of the open file format',
  oneOf: ['StudyDocument', 'ProblemDocument', 'MethodDocument'].map((name) => ({ $ref: PREFIX + name })),
};

/** A study, as a property of a body. */
export const STUDY_DOCUMENT = {
  description: 'a study of the open file format',
  allOf: [{ $ref: `${PREFIX}StudyDocument` }],
};
