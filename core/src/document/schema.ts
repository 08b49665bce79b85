import type { JsonSchema } from '../text/form.ts';
import { METHOD, PROBLEM, STUDY } from './document.ts';

/** The JSON Schema of the file format, from the definition that the reader uses. */
export function documentSchema(): JsonSchema {
  const definitions: Record<string, JsonSchema> = {};
  const oneOf = [STUDY, PROBLEM, METHOD].map((form) =>
    form.schema((name, schema) => {
      definitions[name] = schema;
    }),
  );
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    title: 'Schritt file, version 1',
    oneOf,
    definitions,
  };
}
