// A worker: does long studies of a server, which it finds through the queue at SCHRITT_QUEUE.
import { join } from 'node:path';
import { buildNode, install, root } from './fresh.mjs';

install();
buildNode(['core', 'plot', 'server'], true);
await import(join(root, 'server/dist/worker-main.js'));
