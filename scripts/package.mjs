// Makes what `npm pack` puts into the package: the terminal program in one folder, with the packages of others beside it.
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'vite';
import { buildNode, root } from './fresh.mjs';

/** The workspaces whose code is in the package. */
const OWN = ['core', 'plot', 'cli'];

function manifest(folder) {
  return JSON.parse(readFileSync(join(root, folder, 'package.json'), 'utf8'));
}

/** Packages of others that the workspaces name and the package does not, or in another version. */
function missing() {
  const { dependencies } = manifest('.');
  return OWN.flatMap((folder) => Object.entries(manifest(folder).dependencies)).filter(
    ([name, version]) => !name.startsWith('@schritt/') && dependencies[name] !== version,
  );
}

const differing = missing();
if (differing.length > 0) {
  const lines = differing.map(([name, version]) => `  "${name}": "${version}"`).join(',\n');
  console.error(`package.json must name these among its dependencies, as the workspaces do:\n${lines}`);
  process.exit(1);
}
buildNode(OWN, true);
rmSync(join(root, 'dist'), { recursive: true, force: true });
await build({
  configFile: false,
  root,
  logLevel: 'warn',
  ssr: { noExternal: [/^@schritt\//] },
  build: {
    ssr: join(root, 'cli/dist/schritt.js'),
    outDir: join(root, 'dist'),
    target: 'node20',
    minify: false,
  },
});
