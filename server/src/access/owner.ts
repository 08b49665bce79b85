import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import { digest } from './digest.ts';
import { sessionToken } from './session-cookie.ts';

/** For whom a request asks: a digest of its session, or of its address where it has none. */
export const Owner = createParamDecorator((_: unknown, context: ExecutionContext): string => {
  const request = context.switchToHttp().getRequest<Request>();
  const name = sessionToken(request) ?? request.ip ?? '';
  return digest(`owner\n${name}`).toString('base64url');
});
