// Makes the page's types of the API from the OpenAPI document of the server, so that they cannot drift apart.
import 'reflect-metadata';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import openapiTS, { astToString } from 'openapi-typescript';
import { root } from './fresh.mjs';

const { apiDocument, createServer } = await import(join(root, 'server/dist/create-server.js'));
const app = await createServer({
  database: ':memory:',
  demo: null,
  web: null,
  threads: { workers: '', limit: 1 },
  access: { host: '127.0.0.1', names: [], key: null, metricsKey: null, proxies: 0 },
  queue: null,
  logLevel: 'silent',
});
await app.init();
const ast = await openapiTS(JSON.parse(JSON.stringify(apiDocument(app))), { immutable: true });
await app.close();
const file = join(root, 'web/src/api/schema.ts');
const text = `// Made from the server's OpenAPI document by scripts/api-types.mjs; not to be edited.\n${astToString(ast)}`;
writeFileSync(file, text);
