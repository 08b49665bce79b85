// Collects what Schritt says to people, from its source: labels, findings, errors, help. `docs/sentences.txt` holds the
// reviewed list; without arguments this writes it anew, with --check it fails where the list is not up to date.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { root } from './fresh.mjs';

const LIST = join(root, 'docs/sentences.txt');

/** Source whose texts are code that is generated, or elementary functions. */
const NOT_FOR_PEOPLE =
  /\.test\.|\.migration\.|\.d\.ts$|checksum\.ts|content-security|design-theme|palette\.ts|plot-fonts|svg-head|core\/src\/(compile|elementary)\/|programs\/(fortran|python|c-program|js-program|like-c|names|reserved-words)|tex-(names|commands|text)\.ts|rhs-tree|step-tree|figures\.ts|rules\.ts/;

/** Properties and attributes whose text is never shown. */
const NAMES = new Set([
  'className',
  'class',
  'id',
  'key',
  'kind',
  'type',
  'role',
  'method',
  'path',
  'rel',
  'href',
  'src',
  'style',
  'd',
  'viewBox',
  'transform',
  'fontFamily',
  'font',
  'gridTemplateColumns',
  'htmlFor',
  'name',
  'code',
  'tex',
  'enumName',
  'padding',
  'margin',
  'border',
  'background',
  'boxShadow',
  'width',
  'height',
  'text',
  'before',
  'after',
]);

/** Properties and attributes whose text is shown, be it a single word. */
const LABELS = new Set([
  'label',
  'title',
  'aria-label',
  'placeholder',
  'description',
  'okText',
  'cancelText',
  'message',
  'heading',
  'alt',
  'subTitle',
  'tooltip',
  'extra',
  'help',
  'caption',
  'content',
  'children',
  'unit',
  'suffix',
  'addonBefore',
]);

function nameOf(node) {
  const { parent } = node;
  if (parent === undefined) return null;
  if (ts.isJsxAttribute(parent)) return parent.name.getText();
  if (ts.isJsxExpression(parent) || ts.isConditionalExpression(parent) || ts.isBinaryExpression(parent))
    return nameOf(parent);
  if (ts.isPropertyAssignment(parent) && parent.initializer === node)
    return parent.name.getText().replaceAll("'", '');
  return null;
}

/** A text with `{...}` for what is put in; null for a node that is none. */
function textOf(node) {
  if (ts.isStringLiteralLike(node)) return node.text;
  if (!ts.isTemplateExpression(node)) return null;
  const rest = node.templateSpans.map(
    ({ expression, literal }) => `{${expression.getText()}}${literal.text}`,
  );
  return node.head.text + rest.join('');
}

/** Words of a language with a space between them: not a name, not a selector, not code. */
const IS_SENTENCE = /[A-Za-z\u00e4\u00f6\u00fc]{2,}[,:;.]? (?:\(?[A-Za-z{0-9"'])/;
const IS_CODE =
  /^[.#&>@]|=>|;\s*$|\{\s*$|\bconst |\breturn\b|\\\\|\\[a-z]{2,}\{|^\s*\/\/|^use strict$|^<|="|^(SELECT|UPDATE|DELETE|DROP|INSERT|VACUUM|BEGIN) |px \{|^(first|second) order$|\[role=|^allow-same|^body \{|immutable$|charset=|^'?IBM Plex|^'?Source Serif|^DejaVu/;

function isShown(node, text) {
  const { parent } = node;
  if (ts.isImportDeclaration(parent) || ts.isExportDeclaration(parent) || ts.isLiteralTypeNode(parent))
    return false;
  if (ts.isImportTypeNode(parent) || ts.isElementAccessExpression(parent)) return false;
  const name = nameOf(node);
  if (name !== null && NAMES.has(name)) return false;
  if (name !== null && LABELS.has(name)) return /[A-Za-z]{2}/.test(text);
  return IS_SENTENCE.test(text) && !IS_CODE.test(text);
}

function sentencesOf(file) {
  const text = readFileSync(join(root, file), 'utf8');
  const kind = file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true, kind);
  const found = [];
  const visit = (node) => {
    if (ts.isJsxText(node)) {
      const shown = node.text.replace(/\s+/g, ' ').trim();
      if (/[A-Za-z]{2}/.test(shown)) found.push(shown);
    } else {
      const shown = textOf(node)?.replace(/\s+/g, ' ').trim();
      if (shown !== undefined && isShown(node, shown)) found.push(shown);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return [...new Set(found)];
}

const files = ['core', 'plot', 'cli', 'server', 'web'].flatMap((part) =>
  readdirSync(join(root, part, 'src'), { recursive: true })
    .map((file) => `${part}/src/${file}`)
    .filter((file) => /\.tsx?$/.test(file))
    .sort(),
);
const list = files
  .filter((file) => !NOT_FOR_PEOPLE.test(file))
  .flatMap((file) => {
    const sentences = sentencesOf(file);
    return sentences.length === 0 ? [] : [`${file}\n${sentences.map((one) => `  ${one}\n`).join('')}`];
  })
  .join('\n');

if (process.argv.includes('--check')) {
  if (readFileSync(LIST, 'utf8') !== list) {
    console.error('docs/sentences.txt is not up to date: run npm run sentences, and review what has changed');
    process.exit(1);
  }
} else writeFileSync(LIST, list);
