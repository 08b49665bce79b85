import type { OpenAPIObject } from '@nestjs/swagger';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ApiError } from './api-error.ts';

/** Methods that are answered by the router itself. */
const ALWAYS: ReadonlySet<string> = new Set(['GET', 'HEAD', 'OPTIONS']);
const METHODS = ['get', 'post', 'put', 'delete', 'patch'] as const;

/** Refuses methods that a known path of the API does not have, and names those it has. */
export function wrongMethod({ paths }: Pick<OpenAPIObject, 'paths'>): RequestHandler {
  const known = Object.entries(paths).map(([path, item]) => ({
    pattern: new RegExp(`^${path.replace(/\{\w+\}/g, '[^/]+')}$`),
    methods: METHODS.filter((method) => item[method] !== undefined).map((method) => method.toUpperCase()),
  }));
  return (request: Request, response: Response, next: NextFunction) => {
    const found = known.find(({ pattern }) => pattern.test(request.path));
    if (found === undefined || ALWAYS.has(request.method) || found.methods.includes(request.method)) {
      next();
      return;
    }
    response.setHeader('Allow', found.methods.join(', '));
    throw new ApiError(
      'wrong-method',
      `${request.method} is not allowed here; allowed are ${found.methods.join(', ')}`,
    );
  };
}
