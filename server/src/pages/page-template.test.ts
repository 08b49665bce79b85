import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pageTemplate } from './page-template.ts';

const PAGE = `<html><head><link rel="stylesheet" href="/assets/start.css"></head><body>
<div id="root"></div><footer></footer></body></html>`;
const MANIFEST = {
  'src/pages/study-page.tsx': {
    file: 'assets/study-page.js',
    css: ['assets/study.css'],
    imports: ['_table.js', '_start.js'],
    dynamicImports: ['src/pages/study-parts.ts'],
  },
  // each needs the other
  '_table.js': {
    file: 'assets/table.js',
    css: ['assets/table.css', 'assets/study.css'],
    imports: ['_start.js'],
  },
  '_start.js': { file: 'assets/start.js', css: ['assets/start.css'], imports: ['_table.js'] },
  'src/pages/study-parts.ts': { file: 'assets/study-parts.js', css: ['assets/parts.css'] },
};

let folder: string;

function built(files: Readonly<Record<string, string>>): void {
  for (const [name, text] of Object.entries(files)) {
    mkdirSync(join(folder, name, '..'), { recursive: true });
    writeFileSync(join(folder, name), text);
  }
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-template-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

test('a page with a picture asks for all that it needs at once, each once and no more', () => {
  built({
    'index.html': PAGE,
    '.vite/manifest.json': JSON.stringify(MANIFEST),
    '.server/first-picture.js': '',
  });
  const template = pageTemplate(folder);
  expect(template?.program).toBe(join(folder, '.server/first-picture.js'));
  const page = template?.withPicture('<p>$& $1</p>') ?? '';
  const links = [...page.matchAll(/<link rel="(\w+)"[^>]* href="([^"]+)">/g)].map(([, rel, file]) => [
    rel,
    file,
  ]);
  expect(links).toEqual([
    ['stylesheet', '/assets/start.css'],
    ['stylesheet', '/assets/table.css'],
    ['stylesheet', '/assets/study.css'],
    ['modulepreload', '/assets/start.js'],
    ['modulepreload', '/assets/table.js'],
    ['modulepreload', '/assets/study-page.js'],
  ]);
  expect(page.indexOf('modulepreload')).toBeLessThan(page.indexOf('</head>'));
  // nothing in it answers before the page takes its place
  expect(page).toContain('<div id="root" inert><p>$& $1</p></div><footer>');
});

test.each([
  ['the program', { 'index.html': PAGE, '.vite/manifest.json': '{}' }],
  ['a manifest', { 'index.html': PAGE, '.server/first-picture.js': '' }],
  ['a root', { 'index.html': '<html></html>', '.vite/manifest.json': '{}', '.server/first-picture.js': '' }],
])('a build without %s has no pictures', (_, files) => {
  built(files);
  expect(pageTemplate(folder)).toBeNull();
});
