import { join } from 'node:path';
import compression from 'compression';
import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import { isLoopback } from '../settings.ts';
import { WORKER_POLICY } from './content-security.ts';

/** The files in which compiled loops are made, by the name that the build gives them. */
const COMPUTES = /compute\.worker-[\w-]+\.js$/;
/** Addresses that are pages. */
const PAGE = /^\/((studies|problems|methods)(\/[\w-]+)?|shown\/[\w-]+|marking|open)?\/?$/;

/** Passes requests of the API by, which no file answers. */
function besideApi(handler: RequestHandler): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) =>
    request.path.startsWith('/api') ? next() : handler(request, response, next);
}

/**
 * Compresses the files of the page for readers on other machines: on this one it takes longer than it saves. Answers of
 * the API are small, or streams that must not wait.
 */
export function compressedPages(): RequestHandler {
  return besideApi(
    compression({
      filter: (request, response) => {
        const { remoteAddress = '' } = request.socket;
        const isNear = isLoopback(remoteAddress) && request.headers['x-forwarded-for'] === undefined;
        return !isNear && compression.filter(request, response);
      },
    }),
  );
}

/** Serves the built files; names with a digest of the content are kept by browsers for good. */
export function webFiles(folder: string): RequestHandler {
  const files: RequestHandler = express.static(folder, {
    index: false,
    setHeaders: (response: Response, path: string) => {
      if (path.startsWith(join(folder, 'assets')))
        response.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
      if (COMPUTES.test(path)) response.setHeader('Content-Security-Policy', WORKER_POLICY);
    },
  });
  return besideApi(files);
}

/** The page that is requested with its first picture; null where it has none. */
export type PicturedPage = (request: Request) => Promise<string | null>;

/**
 * Serves the page for every address that is one; for others that a person typed the same page, which says so, as 404.
 */
export function webPages(folder: string, picturedPage: PicturedPage): RequestHandler {
  const page = join(folder, 'index.html');
  return besideApi(async (request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      next();
      return;
    }
    const isPage = PAGE.test(request.path);
    const isAsked = request.accepts(['html', 'json']) === 'html' && !/\.\w+$/.test(request.path);
    if (!isPage && !isAsked) {
      next();
      return;
    }
    response.status(isPage ? 200 : 404).setHeader('Cache-Control', 'no-cache');
    const pictured = isPage && request.method === 'GET' ? await picturedPage(request) : null;
    if (pictured === null) response.sendFile(page);
    // it is for those alone who may read the study
    else response.setHeader('Cache-Control', 'private, no-cache').type('html').send(pictured);
  });
}
