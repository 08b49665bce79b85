const VALUES = [
  null,
  true,
  false,
  0,
  -0,
  1,
  -1,
  1e308,
  -1e308,
  1e-320,
  0.1,
  2 ** 53,
  '',
  ' ',
  'x',
  'pi/8',
  '__proto__',
  [],
  {},
  [[]],
  'exact',
  'end',
  '\u0000',
  '\ud800',
  '<script>',
  'a'.repeat(30_000),
  Array.from({ length: 1000 }, () => 1),
  [null],
  { at: 'end' },
  { h: 0.1 },
  { counts: [1, 2, 4] },
  { from: 1, by: 2, count: 5 },
  { from: 1e308, by: 1e308, count: 40 },
  [1e9, 1e15],
  ['pi/0'],
];
const KEYS = [
  '__proto__',
  'constructor',
  'toString',
  'schritt',
  'kind',
  'title',
  'ladder',
  'methods',
  'error',
  'struck',
  'window',
  '',
  'at',
];

/** A place somewhere in a document: the value that holds it, and its key there. */
function somewhere(r, root) {
  let holder = root;
  for (;;) {
    const keys = Object.keys(holder);
    if (keys.length === 0) return null;
    const key = r.pick(keys);
    const value = holder[key];
    if (typeof value !== 'object' || value === null || r.chance(0.35)) return { holder, key };
    holder = value;
  }
}

function put(holder, key, value) {
  Object.defineProperty(holder, key, { value, enumerable: true, configurable: true, writable: true });
}

/** A document with a few values exchanged, taken away or put in. */
export function spoiltDocument(r, document) {
  const copy = structuredClone(document);
  for (let i = r.below(4); i >= 0; i -= 1) {
    const place = somewhere(r, copy);
    if (place === null) break;
    const { holder, key } = place;
    r.pick([
      () => put(holder, key, structuredClone(r.pick(VALUES))),
      () => delete holder[key],
      () => Array.isArray(holder) || put(holder, r.pick(KEYS), structuredClone(r.pick(VALUES))),
      () => Array.isArray(holder) && holder.push(...holder.slice(0, 200)),
      () =>
        typeof holder[key] === 'string' &&
        put(holder, key, holder[key].slice(r.below(20)) + r.pick(['', '\n', "'", '0'])),
      () =>
        typeof holder[key] === 'number' && put(holder, key, holder[key] * r.pick([-1, 0, 1e9, 1e-9, 0.37])),
    ])();
  }
  return copy;
}

/** The text of a file: of a spoilt document, sometimes cut or with something that is no JSON. */
export function randomFile(r, documents) {
  const text = JSON.stringify(spoiltDocument(r, r.pick(documents)));
  if (r.chance(0.8)) return text;
  const at = r.below(text.length);
  return r.pick([
    () => text.slice(0, at),
    () => text.slice(0, at) + r.pick(['{', '}', ',', '"', 'NaN', '\\', '\u0000', '[[[[']) + text.slice(at),
    () => '['.repeat(1 + r.below(5000)) + text,
    () => text.replace('"schritt"', '"__proto__":{"kind":"study"},"schritt"'),
    () => `{${Array.from({ length: 1 + r.below(3000) }, (_, i) => `"k${i}":${i}`).join(',')}}`,
  ])();
}
