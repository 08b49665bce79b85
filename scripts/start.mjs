// One command from a fresh clone to a running Schritt: installs, builds, serves and prints the address.
import { join } from 'node:path';
import { buildNode, buildWeb, install, root } from './fresh.mjs';

install();
buildNode();
buildWeb();
await import(join(root, 'server/dist/main.js'));
