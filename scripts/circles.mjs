// Looks for circles in the import graph of all packages, imports of types alone included: the linter follows only
// those that are there when the code runs.
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import ts from 'typescript';
import { root } from './fresh.mjs';

const files = ['core', 'cli', 'server', 'web'].flatMap((name) =>
  readdirSync(join(root, name, 'src'), { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name)),
);

/** The file that an import means; null where it is of another package than ours. */
function target(from, name) {
  const entry = /^@schritt\/core\/(\w+)$/.exec(name);
  const path =
    entry !== null
      ? join(root, 'core/src', `${entry[1]}.ts`)
      : name.startsWith('.')
        ? join(dirname(from), name)
        : null;
  return path !== null && /\.tsx?$/.test(path) && existsSync(path) ? path : null;
}

const imports = new Map(
  files.map((file) => [
    file,
    ts
      .preProcessFile(readFileSync(file, 'utf8'))
      .importedFiles.flatMap(({ fileName }) => target(file, fileName) ?? []),
  ]),
);

const done = new Set();
const circles = [];
function walk(file, way) {
  if (way.includes(file)) circles.push([...way.slice(way.indexOf(file)), file]);
  if (done.has(file)) return;
  done.add(file);
  for (const next of imports.get(file) ?? []) walk(next, [...way, file]);
}
for (const file of files) walk(file, []);

const arrows = [...imports.values()].reduce((sum, list) => sum + list.length, 0);
console.log(`${files.length} files, ${arrows} imports, ${circles.length} circles`);
for (const circle of circles) console.log(circle.map((file) => relative(root, file)).join(' -> '));
if (circles.length > 0) process.exitCode = 1;
