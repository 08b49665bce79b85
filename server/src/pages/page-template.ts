import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A file of the build, as its manifest describes it. */
interface BuiltFile {
  readonly file: string;
  readonly css?: readonly string[];
  /** Names of the files that it needs at once. */
  readonly imports?: readonly string[];
}

type Manifest = Readonly<Record<string, BuiltFile>>;

function isManifest(value: unknown): value is Manifest {
  return (
    typeof value === 'object' &&
    value !== null &&
    Object.values(value).every((file: unknown) => typeof file === 'object' && file !== null && 'file' in file)
  );
}

/** The page of a study in the sources of the page. */
const STUDY_PAGE = 'src/pages/study-page.tsx';
/** Where the page is put in. */
const ROOT = '<div id="root"></div>';

/** How the page is completed on the server. */
export interface PageTemplate {
  /** The file of the program that makes first pictures. */
  readonly program: string;
  /** The page with a first picture of a study in it, and with its styles and scripts asked for. */
  readonly withPicture: (picture: string) => string;
}

/** A file behind all that it needs at once. */
function needed(manifest: Manifest, name: string, seen = new Set<string>()): readonly BuiltFile[] {
  const file = manifest[name];
  // files may need each other
  if (file === undefined || seen.has(name)) return [];
  seen.add(name);
  return [...(file.imports ?? []).flatMap((other) => needed(manifest, other, seen)), file];
}

/** @returns null where the build has no first pictures */
export function pageTemplate(folder: string): PageTemplate | null {
  const [manifestFile, program] = [
    join(folder, '.vite/manifest.json'),
    join(folder, '.server/first-picture.js'),
  ];
  if (!existsSync(manifestFile) || !existsSync(program)) return null;
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  const [before, after] = page.split(ROOT);
  const [head, body] = (before ?? '').split('</head>');
  const manifest: unknown = JSON.parse(readFileSync(manifestFile, 'utf8'));
  if (after === undefined || head === undefined || body === undefined || !isManifest(manifest)) return null;
  const files = needed(manifest, STUDY_PAGE);
  const links = [
    ...files.flatMap(({ css = [] }) => css.map((file) => ({ rel: 'stylesheet', file }))),
    ...files.map(({ file }) => ({ rel: 'modulepreload', file })),
  ]
    .filter(({ file }) => !page.includes(`"/${file}"`))
    .map(({ rel, file }) => `<link rel="${rel}" crossorigin href="/${file}">`);
  const start = `${head}${[...new Set(links)].join('')}</head>${body}<div id="root" inert>`;
  return { program, withPicture: (picture) => `${start}${picture}</div>${after}` };
}
