// Writes the published JSON Schema of the file format from its definition in core.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { buildNode, root } from './fresh.mjs';

buildNode(['core']);
const { documentSchema } = await import(join(root, 'core/dist/document/schema.js'));
const file = join(root, 'docs/schritt.schema.json');
const options = { ...(await resolveConfig(file)), parser: 'json' };
writeFileSync(file, await format(JSON.stringify(documentSchema()), options));
