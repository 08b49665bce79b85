import { documentSchema } from '@schritt/core/document';

/** Where a JSON Schema keeps named parts, and where an OpenAPI document does. */
const [HERE, THERE] = ['#/definitions/', '#/components/schemas/'];

/** The same schema with its references pointing into an OpenAPI document. */
function moved(value: unknown): unknown {
  if (typeof value === 'string') return value.startsWith(HERE) ? THERE + value.slice(HERE.length) : value;
  if (Array.isArray(value)) return value.map(moved);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, moved(part)]));
}

/** The file format as schemas of an OpenAPI document: `study`, `problem`, `method` and their parts. */
export function documentSchemas(): Readonly<Record<string, object>> {
  const { definitions } = documentSchema();
  const parts = moved(definitions);
  return typeof parts === 'object' && parts !== null ? Object.fromEntries(Object.entries(parts)) : {};
}

/** A document of any kind, as a property of a body. */
export const ANY_DOCUMENT = {
  description: 'a document of the open file format',
  oneOf: ['study', 'problem', 'method'].map((kind) => ({ $ref: `${THERE}${kind}` })),
};

/** A study, as a property of a body. */
export const STUDY_DOCUMENT = {
  description: 'a study of the open file format',
  allOf: [{ $ref: `${THERE}study` }],
};
