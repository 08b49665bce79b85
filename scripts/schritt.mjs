// The terminal program: builds it when needed, adds the commands on the data of the server, then hands over.
import { join } from 'node:path';
import { buildNode, root } from './fresh.mjs';

/** Runs a command of the server, which is built when one is called. */
async function onServer(work) {
  buildNode(['core', 'server'], true);
  const { ok, text } = await work(await import(join(root, 'server/dist/backup-command.js')));
  (ok ? process.stdout : process.stderr).write(`${text}\n`);
  process.exitCode = ok ? 0 : 1;
}

buildNode(['core', 'cli'], true);
const { main, program } = await import(join(root, 'cli/dist/main.js'));
program
  .command('backup')
  .description('write a copy of all data of the server to a file, also while it is running')
  .argument('<file>', 'where to write the copy')
  .action((file) => onServer((server) => server.backupCommand(file, process.env, root)));
program
  .command('restore')
  .description('restore such a copy after verifying it; the present data is kept beside it')
  .argument('<file>', 'a copy that backup wrote')
  .option('--keep-damaged', 'restore documents that cannot be read as they are')
  .action((file, options) => onServer((server) => server.restoreCommand(file, options, process.env, root)));
program
  .command('worker')
  .description('do long studies of a server, through the queue at SCHRITT_QUEUE, until it is stopped')
  .action(async () => {
    buildNode(['core', 'plot', 'server'], true);
    await import(join(root, 'server/dist/worker-main.js'));
  });
program.addHelpText('after', '\nbackup and restore use the data folder of the server (SCHRITT_DATA).');
await main();
