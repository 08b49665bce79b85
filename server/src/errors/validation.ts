import { ValidationPipe } from '@nestjs/common';
import { faultsOf } from '@schritt/core/format';
import { ApiError } from './api-error.ts';

/** Faults that one answer reports. */
const MAX_FAULTS = 100;

/** Checks what clients send by class-validator; unknown fields are refused. */
export function validation(): ValidationPipe {
  return new ValidationPipe({
    transform: true,
    stopAtFirstError: true,
    whitelist: true,
    forbidNonWhitelisted: true,
    exceptionFactory: (errors) =>
      new ApiError('bad-request', 'the request is not valid', faultsOf(errors).slice(0, MAX_FAULTS)),
  });
}
