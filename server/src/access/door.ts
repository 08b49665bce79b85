import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ApiError } from '../errors/api-error.ts';
import type { KeyHolder } from './key-holder.ts';

/** Who may come in. */
export interface DoorOptions {
  /** The address that the server listens at. */
  readonly host: string;
  /** Other names by which it may be asked. */
  readonly names: readonly string[];
  /** The key of those who may write; null where everybody who reaches the server may, on its own machine. */
  readonly key: KeyHolder | null;
}

const LOOPBACK_NAMES = ['localhost', '127.0.0.1', '[::1]'];
const READING: ReadonlySet<string> = new Set(['GET', 'HEAD', 'OPTIONS']);

/** What needs no key: whether the server is there, who is asking, and what owners show. */
const OPEN_TO_ALL = /^\/api\/(health|access|shown\/[\w-]+)$/;

function nameOf(host: string): string {
  return host.toLowerCase().replace(/:\d+$/, '');
}

/** The names under which a request is answered: a name that somebody bound to this address is none of them. */
function allowedNames({ host, names }: DoorOptions): ReadonlySet<string> {
  const own = host.includes(':') ? `[${host}]` : host.toLowerCase();
  return new Set([...LOOPBACK_NAMES, own, ...names]);
}

/** Whether a change was asked for by a page of this server, or by no page at all. */
function isFromHere(request: Request): boolean {
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  return origin === undefined || origin === `http://${host}` || origin === `https://${host}`;
}

/** Looks at every request before anything is done for it. */
export function door(options: DoorOptions): RequestHandler {
  const names = allowedNames(options);
  const anyAddress = options.host === '0.0.0.0' || options.host === '::';
  const isKnown = (name: string): boolean =>
    names.has(name) || (anyAddress && (/^\d+(\.\d+){3}$/.test(name) || /^\[[\da-f:]+\]$/.test(name)));
  return (request: Request, _response: Response, next: NextFunction) => {
    const name = nameOf(request.headers.host ?? '');
    if (!isKnown(name))
      throw new ApiError(
        'wrong-host',
        'this server does not answer under this name; name it in SCHRITT_NAMES if it should',
      );
    if (!READING.has(request.method) && !isFromHere(request))
      throw new ApiError('other-origin', 'this was asked for by a page of another site, and is not done');
    const needsKey = request.path.startsWith('/api') && !OPEN_TO_ALL.test(request.path);
    if (needsKey && options.key !== null && !options.key.isHeldBy(request))
      throw new ApiError(
        'no-key',
        'this needs the key of the server; open the link that it printed when it started',
      );
    next();
  };
}
