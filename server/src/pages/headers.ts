import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { DATA_POLICY, PAGE_POLICY } from './content-security.ts';

/** Tells browsers what they may do with an answer: much of it matters for pages alone. */
export function headers(): RequestHandler {
  const page = helmet({ contentSecurityPolicy: false, strictTransportSecurity: false });
  return (request: Request, response: Response, next: NextFunction) => {
    const isApi = request.path.startsWith('/api/') && !request.path.startsWith('/api/docs');
    // the parts of a page do what the page may; a worker says for itself what it may
    if (isApi || request.path.startsWith('/assets/')) {
      response.setHeader('Content-Security-Policy', DATA_POLICY);
      response.setHeader('X-Content-Type-Options', 'nosniff');
      response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
      if (isApi) response.setHeader('Cache-Control', 'no-store');
      response.removeHeader('X-Powered-By');
      next();
      return;
    }
    response.setHeader('Content-Security-Policy', PAGE_POLICY);
    page(request, response, next);
  };
}
