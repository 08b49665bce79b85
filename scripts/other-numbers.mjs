// Makes a program believe that its numbers are of another version: what a worker does then is tested with it.
import { register } from 'node:module';

const hooks = `
export async function load(url, context, next) {
  const loaded = await next(url, context);
  if (!url.endsWith('/document/run-key.js')) return loaded;
  const source = String(loaded.source).replace(/NUMBERS_VERSION = (\\d+)/, 'NUMBERS_VERSION = 1000 + $1');
  return { ...loaded, source };
}`;
register(`data:text/javascript,${encodeURIComponent(hooks)}`);
