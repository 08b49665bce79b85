// For work on Schritt itself: the server, and the web application with reload on change.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildNode, install, root } from './fresh.mjs';

install();
buildNode();
const parts = [
  spawn(process.execPath, [join(root, 'server/dist/main.js')], { stdio: 'inherit' }),
  spawn('npm', ['run', 'dev', '-w', 'web'], { cwd: root, stdio: 'inherit' }),
];
for (const part of parts) part.on('exit', () => parts.forEach((other) => other.kill()));
