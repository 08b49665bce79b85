import { targetConstructorToSchema } from 'class-validator-jsonschema';
import { DOCUMENT_CLASSES, FORMAT_CLASSES } from './format.ts';
import { DEFINITIONS, referenceTo } from './format-decorators.ts';

/** A JSON Schema, or a part of one. */
type JsonSchema = Readonly<Record<string, unknown>>;

/** The same schema with references that begin otherwise. */
function withReferences(schema: object, prefix: string): object {
  const moved: unknown = JSON.parse(JSON.stringify(schema), (key, value: unknown) =>
    key === '$ref' && typeof value === 'string' ? value.replace(DEFINITIONS, prefix) : value,
  );
  return { ...(typeof moved === 'object' ? moved : {}) };
}

/**
 * The schema of each class of the file format, by its name.
 *
 * @param prefix how references to named parts begin
 * @example Object.keys(documentSchemas()).length > 0 // true
 */
export function documentSchemas(prefix = DEFINITIONS): Readonly<Record<string, object>> {
  return Object.fromEntries(
    FORMAT_CLASSES.map((one) => [
      one.name,
      withReferences(targetConstructorToSchema(one, { refPointerPrefix: DEFINITIONS }), prefix),
    ]),
  );
}

/**
 * The JSON Schema of the file format, from the definition that the reader uses.
 *
 * @example Object.keys(documentSchema()).length > 0 // true
 */
export function documentSchema(): JsonSchema {
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    title: 'Schritt file, version 1',
    oneOf: Object.values(DOCUMENT_CLASSES).map(referenceTo),
    definitions: documentSchemas(),
  };
}
