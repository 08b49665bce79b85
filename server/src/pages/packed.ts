import { existsSync } from 'node:fs';
import { join, normalize } from 'node:path';
import type { NextFunction, Request, RequestHandler, Response } from 'express';

/** Files that the build has packed as well, and what they are. */
const TYPES: ReadonlyMap<string, string> = new Map([
  ['.js', 'text/javascript; charset=utf-8'],
  ['.css', 'text/css; charset=utf-8'],
  ['.svg', 'image/svg+xml'],
]);
const PACKED = [
  { encoding: 'br', suffix: '.br' },
  { encoding: 'gzip', suffix: '.gz' },
] as const;

/** Sends the packed form of a built file to a browser that takes it; the next handler finds it under its longer name. */
export function packed(folder: string): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    const [path = ''] = request.url.split('?');
    const type = TYPES.get(/\.\w+$/.exec(path)?.[0] ?? '');
    const isRead = request.method === 'GET' || request.method === 'HEAD';
    if (type === undefined || !isRead || path.includes('%') || path.includes('..')) {
      next();
      return;
    }
    response.vary('Accept-Encoding');
    const found = PACKED.find(
      ({ encoding, suffix }) =>
        request.acceptsEncodings(encoding) !== false &&
        existsSync(join(folder, normalize(`${path}${suffix}`))),
    );
    if (found !== undefined) {
      request.url = `${path}${found.suffix}`;
      response.setHeader('Content-Encoding', found.encoding);
      response.setHeader('Content-Type', type);
    }
    next();
  };
}
