import { Param, ParseUUIDPipe } from '@nestjs/common';
import { ApiError } from '../errors/api-error.ts';

/** The id in an address; anything that is none is told as not found. */
export function IdParam(): ParameterDecorator {
  return Param('id', new ParseUUIDPipe({ exceptionFactory: () => new ApiError('not-found', 'not found') }));
}
