/** What pages may load: their own files. KaTeX and the component library set inline styles. */
const PAGE = {
  'default-src': ["'self'"],
  'base-uri': ["'self'"],
  'form-action': ["'self'"],
  'frame-ancestors': ["'self'"],
  'object-src': ["'none'"],
  'script-src': ["'self'"],
  'script-src-attr': ["'none'"],
  'worker-src': ["'self'"],
  'style-src': ["'self'", "'unsafe-inline'"],
  'font-src': ["'self'", 'data:'],
  'img-src': ["'self'", 'data:', 'blob:'],
  'connect-src': ["'self'"],
};

function written(directives: Readonly<Record<string, readonly string[]>>): string {
  return Object.entries(directives)
    .map(([name, values]) => `${name} ${values.join(' ')}`)
    .join('; ');
}

export const PAGE_POLICY = written(PAGE);

/** Data and the parts of a page are no pages. */
export const DATA_POLICY = "default-src 'none'; frame-ancestors 'none'";

/**
 * The policy of the workers that compute: they compile loops, whose source is made of printed numbers and names of the
 * generators. A worker has the policy of its own response; pages have not this one.
 */
export const WORKER_POLICY = written({
  ...PAGE,
  'script-src': ["'self'", "'unsafe-eval'", "'wasm-unsafe-eval'"],
});
