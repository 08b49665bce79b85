/** Media types of exported files (IANA; Jupyter and Python by use). */
const MEDIA_TYPES: Readonly<Record<string, string>> = {
  csv: 'text/csv; charset=utf-8',
  md: 'text/markdown; charset=utf-8',
  tex: 'application/x-tex',
  tikz: 'application/x-tex',
  html: 'text/html; charset=utf-8',
  txt: 'text/plain; charset=utf-8',
  py: 'text/x-python; charset=utf-8',
  c: 'text/x-c; charset=utf-8',
  js: 'text/javascript; charset=utf-8',
  f90: 'text/x-fortran; charset=utf-8',
  m: 'text/x-matlab; charset=utf-8',
  jl: 'text/x-julia; charset=utf-8',
  ipynb: 'application/x-ipynb+json',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
  svg: 'image/svg+xml',
  png: 'image/png',
  pdf: 'application/pdf',
  xml: 'application/xml',
  gift: 'text/plain; charset=utf-8',
  qti: 'application/zip',
};

/**
 * The media type of a file of an export.
 *
 * @param format its ending
 * @example mediaType('csv') // 'text/csv; charset=utf-8'
 */
export function mediaType(format: string): string {
  return MEDIA_TYPES[format] ?? 'application/octet-stream';
}

/**
 * The ending of the name of a file of an export: what is zipped or LaTeX is called so.
 *
 * @example fileEnding('qti') // 'zip'
 */
export function fileEnding(format: string): string {
  if (format === 'qti') return 'zip';
  if (format === 'tikz') return 'tex';
  return format === 'gift' ? 'gift.txt' : format;
}
