import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { ApiError } from './api-error.ts';

/** Gives every error the one typed body; what is unforeseen is logged and told without its inside. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  readonly #logger = new Logger('errors');

  catch(thrown: unknown, host: ArgumentsHost): void {
    const error = this.#apiError(thrown);
    if (error.body.code === 'internal')
      this.#logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown));
    host.switchToHttp().getResponse<Response>().status(error.body.status).json(error.body);
  }

  #apiError(thrown: unknown): ApiError {
    if (thrown instanceof ApiError) return thrown;
    if (thrown instanceof HttpException) {
      const status = thrown.getStatus();
      if (status === 404) return new ApiError('not-found', 'there is nothing at this address');
      if (status === 413) return new ApiError('too-large', 'this is more than one megabyte');
      if (status < 500) return new ApiError('bad-request', thrown.message);
    }
    if (statusOf(thrown) === 413) return new ApiError('too-large', 'this is more than one megabyte');
    if (statusOf(thrown) === 400) return new ApiError('bad-request', 'the body is not JSON');
    return new ApiError('internal', 'something went wrong inside the server; nothing was changed');
  }
}

/** The status that the body reader of express puts on its own errors. */
function statusOf(thrown: unknown): number | null {
  if (typeof thrown !== 'object' || thrown === null || !('status' in thrown)) return null;
  return typeof thrown.status === 'number' ? thrown.status : null;
}
