import { targetConstructorToSchema } from 'class-validator-jsonschema';
import { DOCUMENT_CLASSES, FORMAT_CLASSES } from './format.ts';
import { DEFINITIONS, referenceTo } from './format-decorators.ts';

/** A JSON Schema, or a part of one. */
type JsonSchema = Readonly<Record<string, unknown>>;

/** The same schema with references that begin otherwise. */
function withReferences(value: unknown, prefix: string): unknown {
  if (typeof value === 'string' && value.startsWith(DEFINITIONS))
    return prefix + value.slice(DEFINITIONS.length);
  if (Array.isArray(value)) return value.map((one: unknown) => withReferences(one, prefix));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, withReferences(part, prefix)]));
}

/**
 * The schema of each class of the file format, by its name.
 *
 * @param prefix how references to named parts begin
 */
export function documentSchemas(prefix = DEFINITIONS): Readonly<Record<string, JsonSchema>> {
  const schemas = FORMAT_CLASSES.map((one) => [
    one.name,
    targetConstructorToSchema(one, { refPointerPrefix: DEFINITIONS }),
  ]);
  return Object(withReferences(Object.fromEntries(schemas), prefix));
}

/** The JSON Schema of the file format, from the definition that the reader uses. */
export function documentSchema(): JsonSchema {
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    title: 'Schritt file, version 1',
    oneOf: Object.values(DOCUMENT_CLASSES).map(referenceTo),
    definitions: documentSchemas(),
  };
}
