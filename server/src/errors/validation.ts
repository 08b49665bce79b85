import { ValidationPipe } from '@nestjs/common';
import type { ValidationError } from 'class-validator';
import { ApiError, type ApiFault } from './api-error.ts';

function faultsOf(errors: readonly ValidationError[], around = ''): readonly ApiFault[] {
  return errors.flatMap((error) => {
    const place = around === '' ? error.property : `${around}.${error.property}`;
    const own = Object.values(error.constraints ?? {}).flatMap((message) =>
      message.split('\n').map((line) => {
        const [, inner, rest] = /^([\w[\].]+): (.*)$/.exec(line) ?? [];
        return inner === undefined || rest === undefined
          ? { place, message: line }
          : { place: `${place}.${inner}`, message: rest };
      }),
    );
    return [...own, ...faultsOf(error.children ?? [], place)];
  });
}

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
      new ApiError(
        'bad-request',
        'what was sent is not as it should be',
        faultsOf(errors).slice(0, MAX_FAULTS),
      ),
  });
}
