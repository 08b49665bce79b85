import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, relative } from 'node:path';
import subsetFont from 'subset-font';
import type { Plugin } from 'vite';
import { parted } from './unicode-range.ts';

const ASCII = Array.from({ length: 0x7f - 0x20 }, (_, i) => String.fromCharCode(0x20 + i)).join('');
/** Spaces; one without a glyph would else send for the rest of the face. */
const UNSEEN = '\u00a0\u200b';
/** What sentences, tables and pictures write besides. */
const TEXT = `${ASCII}${UNSEEN}·×±−–—…“”’‹›²³¹ÄÖÜäöüß°½¼¾←→↑↓≤≥≠≈′`;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';
const DELIMITERS = '()[]{}|/√∑∫';

/** Faces that a study begins with, and the letters that it begins with. */
const COMMON: readonly (readonly [file: RegExp, text: string])[] = [
  [/^ibm-plex-sans-latin-[46]00-normal\.woff2$/, TEXT],
  [/^source-serif-4-latin-[46]00-(?:normal|italic)\.woff2$/, TEXT],
  [/^KaTeX_Main-Regular\.woff2$/, `${ASCII}${UNSEEN}−⋅×±≤≥≠≈→…∥∣√∞′ΓΔΘΛΞΠΣΦΨΩ`],
  [/^KaTeX_Main-Italic\.woff2$/, `${LETTERS}0123456789`],
  [/^KaTeX_Math-Italic\.woff2$/, `${LETTERS}αβγδεζηθικλμνξπρστυφχψω∂ϵϕ`],
  [/^KaTeX_Size[12]-Regular\.woff2$/, DELIMITERS],
];

/** What of a face is used: kerning and ligatures, figures of one width, and accents at their places. */
const FEATURES = ['kern', 'liga', 'tnum', 'lnum', 'ccmp', 'locl', 'mark', 'mkmk'];

const FACE = /@font-face\s*\{[^}]*\}/g;
const URL_OF = /url\(["']?([^)"']*\/([^)"'/]*\.woff2))["']?\)/;
const RANGE = /;?\s*unicode-range:\s*([^;}]*);?/;

/** The same face once for its common letters, in a file that holds no others, and once for the rest. */
async function splitFace(face: string, folder: string, made: string): Promise<string> {
  const [, path = '', file = ''] = URL_OF.exec(face) ?? [];
  const text = COMMON.find(([pattern]) => pattern.test(file))?.[1];
  if (text === undefined) return face;
  const { common, others } = parted(RANGE.exec(face)?.[1], text);
  const small = join(made, file.replace(/\.woff2$/, '-common.woff2'));
  const font = readFileSync(join(folder, path));
  writeFileSync(small, await subsetFont(font, text, { targetFormat: 'woff2', keepFeatures: FEATURES }));
  const bare = face.replace(RANGE, '').replace(/\}$/, '');
  const src = `url(./${relative(folder, small)}) format("woff2")`;
  return `${bare};src:${src};unicode-range:${common}}\n${bare};unicode-range:${others}}`;
}

/**
 * Cuts the faces of a first view in two by `unicode-range`, so that a page fetches the letters that it shows. The
 * outlines stay as they are.
 */
export function splitFonts(): Plugin {
  let made = '';
  return {
    name: 'split-fonts',
    enforce: 'pre',
    configResolved(config) {
      made = join(config.cacheDir, 'fonts');
      mkdirSync(made, { recursive: true });
    },
    async transform(code, id) {
      const [file = ''] = id.split('?');
      if (!basename(file).endsWith('.css') || !code.includes('@font-face')) return null;
      const faces = code.match(FACE) ?? [];
      const split = await Promise.all(faces.map((face) => splitFace(face, dirname(file), made)));
      let next = 0;
      return { code: code.replace(FACE, () => split[next++] ?? ''), map: null };
    },
  };
}
