import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ApiError } from '../errors/api-error.ts';
import type { AccessOptions } from './access-options.ts';

const LOOPBACK_NAMES = ['localhost', '127.0.0.1', '[::1]'];
/** Methods that change nothing. */
const SAFE_METHODS: ReadonlySet<string> = new Set(['GET', 'HEAD', 'OPTIONS']);

type HostOptions = Pick<AccessOptions, 'host' | 'names'>;

function nameOf(host: string): string {
  return host.toLowerCase().replace(/:\d+$/, '');
}

function allowedNames({ host, names }: HostOptions): ReadonlySet<string> {
  const own = host.includes(':') ? `[${host}]` : host.toLowerCase();
  return new Set([...LOOPBACK_NAMES, own, ...names]);
}

/** Whether a change was requested by a page of this server, or by no page at all. */
function isSameOrigin(request: Request): boolean {
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  return origin === undefined || origin === `http://${host}` || origin === `https://${host}`;
}

/**
 * Refuses requests under a foreign host name (DNS rebinding) and changes that a page of another site asks for
 * (cross-site request forgery).
 */
export function hostGuard(options: HostOptions): RequestHandler {
  const names = allowedNames(options);
  const anyAddress = options.host === '0.0.0.0' || options.host === '::';
  const isKnown = (name: string): boolean =>
    names.has(name) || (anyAddress && (/^\d+(\.\d+){3}$/.test(name) || /^\[[\da-f:]+\]$/.test(name)));
  return (request: Request, _response: Response, next: NextFunction) => {
    const name = nameOf(request.headers.host ?? '');
    if (!isKnown(name))
      throw new ApiError(
        'wrong-host',
        'This server does not answer under this host name. Add the name to SCHRITT_NAMES if it should.',
      );
    if (!SAFE_METHODS.has(request.method) && !isSameOrigin(request))
      throw new ApiError('other-origin', 'A page of another site asked for this change; it was not made.');
    next();
  };
}
