import type { OpenAPIObject } from '@nestjs/swagger';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ApiError } from './api-error.ts';

const METHODS = ['get', 'post', 'put', 'delete', 'patch'] as const;

/** Refuses methods that an address of the API does not know, and says which it does. */
export function wrongMethod({ paths }: Pick<OpenAPIObject, 'paths'>): RequestHandler {
  const known = Object.entries(paths).map(([path, item]) => ({
    pattern: new RegExp(`^${path.replace(/\{\w+\}/g, '[^/]+')}/?$`),
    methods: METHODS.filter((method) => item[method] !== undefined).map((method) => method.toUpperCase()),
  }));
  return (request: Request, response: Response, next: NextFunction) => {
    const found = known.find(({ pattern }) => pattern.test(request.path));
    const methods = found === undefined ? [] : [...found.methods, 'HEAD', 'OPTIONS'];
    if (found === undefined || methods.includes(request.method)) {
      next();
      return;
    }
    response.setHeader('Allow', found.methods.join(', '));
    throw new ApiError(
      'wrong-method',
      `${request.method} is not known here; known are ${found.methods.join(', ')}`,
    );
  };
}
