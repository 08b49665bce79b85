// The terminal program: builds it when needed, then hands over.
import { join } from 'node:path';
import { buildNode, root } from './fresh.mjs';

const words = process.argv.slice(2);
if (words[0] === 'backup' || words[0] === 'restore') {
  buildNode(['core', 'server'], true);
  const { backupCommand } = await import(join(root, 'server/dist/backup-command.js'));
  const { ok, text } = await backupCommand(words, process.env, root);
  (ok ? process.stdout : process.stderr).write(`${text}\n`);
  process.exitCode = ok ? 0 : 1;
} else {
  buildNode(['core', 'cli'], true);
  await import(join(root, 'cli/dist/main.js'));
}
