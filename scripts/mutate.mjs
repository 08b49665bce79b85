// A mutation pass: changes one operator at a time in the given folders and looks whether the tests of core notice.
// Usage: node scripts/mutate.mjs COUNT FOLDER...   The same mutants come every time.
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { root } from './fresh.mjs';

const [count = '60', ...folders] = process.argv.slice(2);
const OTHERS = new Map([
  ['<', '<='],
  ['<=', '<'],
  ['>', '>='],
  ['>=', '>'],
  ['===', '!=='],
  ['!==', '==='],
  ['+', '-'],
  ['-', '+'],
  ['*', '/'],
  ['/', '*'],
  ['&&', '||'],
  ['||', '&&'],
]);

function sources(folder) {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.ts') && !entry.name.endsWith('.test.ts'))
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name));
}

function mutantsOf(file) {
  const text = readFileSync(file, 'utf8');
  const found = [];
  const visit = (node) => {
    if (ts.isBinaryExpression(node)) {
      const { operatorToken } = node;
      const other = OTHERS.get(operatorToken.getText());
      if (other !== undefined)
        found.push({ file, from: operatorToken.getStart(), to: operatorToken.getEnd(), other });
    }
    if (ts.isNumericLiteral(node) && node.getText() !== '0' && !ts.isLiteralTypeNode(node.parent))
      found.push({ file, from: node.getStart(), to: node.getEnd(), other: `(${node.getText()} + 1)` });
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true));
  return found;
}

let state = 2026;
const random = () => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 2 ** 32;
};
const all = folders.flatMap((folder) => sources(join(root, folder))).flatMap(mutantsOf);
const chosen = all
  .map((mutant) => ({ mutant, place: random() }))
  .sort((a, b) => a.place - b.place)
  .slice(0, Number(count));
const survived = [];
for (const { mutant } of chosen) {
  const { file, from, to, other } = mutant;
  const text = readFileSync(file, 'utf8');
  writeFileSync(file, text.slice(0, from) + other + text.slice(to));
  const { status } = spawnSync(
    process.execPath,
    [
      join(root, 'node_modules/jest/bin/jest.js'),
      '--silent',
      '--bail',
      '--testPathIgnorePatterns',
      '/(server|web|cli)/src/',
      '--findRelatedTests',
      file,
    ],
    { cwd: root, stdio: 'ignore', timeout: 120_000 },
  );
  writeFileSync(file, text);
  const line = text.slice(0, from).split('\n').length;
  const shown = `${relative(root, file)}:${line} ${text.slice(from, to)} -> ${other}`;
  console.log(`${status === 0 ? 'survived' : 'killed  '} ${shown}`);
  if (status === 0) survived.push(shown);
}
console.log(
  `${chosen.length - survived.length} of ${chosen.length} mutants killed (${all.length} there are)`,
);
