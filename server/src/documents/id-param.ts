import { Param, ParseUUIDPipe } from '@nestjs/common';
import { ApiError } from '../errors/api-error.ts';

/** The id in an address; anything that is none is reported as not found. */
export function IdParam(): ParameterDecorator {
  return Param('id', new ParseUUIDPipe({ exceptionFactory: () => new ApiError('not-found', 'not found') }));
}
