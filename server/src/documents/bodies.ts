import type { NextFunction, Request, RequestHandler, Response } from 'express';

/** Handlers in their order, for requests that are no plain reading: those have no body. */
export function bodies(...handlers: readonly RequestHandler[]): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    if (request.method === 'GET' || request.method === 'HEAD') {
      next();
      return;
    }
    const from = (i: number): void => {
      const handler = handlers[i];
      if (handler === undefined) {
        next();
        return;
      }
      try {
        void handler(request, response, (thrown?: unknown) => {
          if (thrown === undefined) from(i + 1);
          else next(thrown);
        });
      } catch (thrown) {
        // a handler may be called back where nobody else would catch what it throws
        next(thrown);
      }
    };
    from(0);
  };
}
