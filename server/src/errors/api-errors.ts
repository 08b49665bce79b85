import { applyDecorators } from '@nestjs/common';
import { ApiResponse } from '@nestjs/swagger';
import { ApiErrorBody, type ApiErrorCode, ERROR_STATUS } from './api-error.ts';

/** What any call may answer. */
const ALWAYS: readonly ApiErrorCode[] = [
  'bad-request',
  'no-key',
  'other-origin',
  'wrong-method',
  'too-large',
  'wrong-host',
  'too-many',
  'internal',
  'busy',
  'no-room',
];

/** Declares the errors that a call may answer, besides those that any call may. */
export function ApiErrors(...codes: readonly ApiErrorCode[]): MethodDecorator & ClassDecorator {
  const byStatus = new Map<number, ApiErrorCode[]>();
  for (const code of new Set([...codes, ...ALWAYS]))
    byStatus.set(ERROR_STATUS[code], [...(byStatus.get(ERROR_STATUS[code]) ?? []), code]);
  return applyDecorators(
    ...[...byStatus].map(([status, of]) =>
      ApiResponse({ status, type: ApiErrorBody, description: of.join(', ') }),
    ),
  );
}
