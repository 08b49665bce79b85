import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import type { Plugin } from 'vite';

/** Files that shrink; fonts and pictures are packed already. */
const SHRINKS = /\.(?:js|css|html|svg)$/;
/** Below this nothing is gained. */
const SMALL = 600;

function compress(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) compress(path);
    else if (SHRINKS.test(entry.name)) {
      const plain = readFileSync(path);
      if (plain.length < SMALL) continue;
      writeFileSync(
        `${path}.br`,
        brotliCompressSync(plain, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: plain.length } }),
      );
      writeFileSync(`${path}.gz`, gzipSync(plain, { level: 9 }));
    }
  }
}

/** Writes every file that shrinks beside itself as brotli and gzip, so that no answer has to wait for it. */
export function compressed(): Plugin {
  let folder = 'dist';
  return {
    name: 'compressed',
    apply: 'build',
    configResolved(config) {
      folder = join(config.root, config.build.outDir);
    },
    closeBundle() {
      compress(folder);
    },
  };
}

/** Leaves the fonts out that only browsers of long ago need: every one that runs this has woff2. */
export function woff2Only(): Plugin {
  return {
    name: 'woff2-only',
    enforce: 'pre',
    transform(code, id) {
      if (!/\.css(?:\?|$)/.test(id) || !code.includes('@font-face')) return null;
      return {
        code: code.replace(
          /,\s*url\([^)]*\.(?:woff|ttf)["']?\)\s*format\(["']?(?:woff|truetype)["']?\)/g,
          '',
        ),
        map: null,
      };
    },
  };
}
