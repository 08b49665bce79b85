import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { codeOf } from '../start-failure.ts';
import { ApiError } from './api-error.ts';

const TOO_LARGE = 'The request body is too large.';

/** Gives every error the one typed body; what is unforeseen is logged and told without its inside. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  readonly #logger = new Logger('errors');

  catch(thrown: unknown, host: ArgumentsHost): void {
    const error = this.#apiError(thrown);
    if (error.body.code === 'internal')
      this.#logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown));
    const response = host.switchToHttp().getResponse<Response>();
    // an answer that has begun, such as a stream, can only be ended
    if (response.headersSent) response.end();
    else response.status(error.body.status).json(error.body);
  }

  #apiError(thrown: unknown): ApiError {
    if (thrown instanceof ApiError) return thrown;
    if (thrown instanceof HttpException) {
      const status = thrown.getStatus();
      if (status === 404) return new ApiError('not-found', 'not found');
      if (status === 413) return new ApiError('too-large', TOO_LARGE);
      if (status < 500) return new ApiError('bad-request', thrown.message);
    }
    const code = storeCode(thrown);
    if (code === 'SQLITE_FULL' || code === 'SQLITE_IOERR_WRITE' || code === 'ENOSPC')
      return new ApiError('no-room', 'the disk of the server is full; nothing was changed');
    if (statusOf(thrown) === 413) return new ApiError('too-large', TOO_LARGE);
    if (statusOf(thrown) === 400)
      return new ApiError(
        'bad-request',
        thrown instanceof SyntaxError ? 'the body is not JSON' : 'this request cannot be read',
      );
    if (statusOf(thrown) === 415)
      return new ApiError('bad-request', 'the content encoding of the body is not supported');
    return new ApiError('internal', 'something went wrong inside the server; nothing was changed');
  }
}

/** The code of an error of the store, also where it is wrapped. */
function storeCode(thrown: unknown): string | null {
  const own = codeOf(thrown);
  if (own !== null || typeof thrown !== 'object' || thrown === null || !('driverError' in thrown)) return own;
  return codeOf(thrown.driverError);
}

/** The status that the body reader of express puts on its own errors. */
function statusOf(thrown: unknown): number | null {
  if (typeof thrown !== 'object' || thrown === null || !('status' in thrown)) return null;
  return typeof thrown.status === 'number' ? thrown.status : null;
}
