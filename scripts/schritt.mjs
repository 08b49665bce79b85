// The terminal program: builds it when needed, then hands over.
import { join } from 'node:path';
import { buildNode, root } from './fresh.mjs';

buildNode(['core', 'cli'], true);
await import(join(root, 'cli/dist/main.js'));
