import type { PackageFile, PlotData } from '@schritt/core/document';
import { strToU8, zipSync } from 'fflate';

/** Files in one archive, with their plots drawn. */
export function zipped(files: readonly PackageFile[], draw: (plot: PlotData) => string): Uint8Array {
  const entries = files.map(({ name, content }): [string, Uint8Array] => [
    name,
    strToU8(typeof content === 'string' ? content : draw(content)),
  ]);
  return zipSync(Object.fromEntries(entries));
}
