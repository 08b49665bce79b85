import type { IncomingMessage, ServerResponse } from 'node:http';

/** The secret part of a link under which a study is shared. */
const SHARED_LINK = /(\/shown\/)[^/?]+/;

/**
 * What a log line says of a request and of its answer. It names what is logged, so that no header, cookie or key can
 * reach the log.
 */
export const LOGGED = {
  req: ({ id, method, url }: Pick<IncomingMessage, 'method' | 'url'> & { readonly id?: unknown }) => ({
    id,
    method,
    url: url?.replace(SHARED_LINK, '$1...'),
  }),
  res: ({ statusCode }: Pick<ServerResponse, 'statusCode'>) => ({ statusCode }),
};
