import { type CanActivate, type ExecutionContext, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ApiError } from '../errors/api-error.ts';
import { PUBLIC } from './public.ts';
import { sessionToken } from './session-cookie.ts';
import { SessionsService } from './sessions.service.ts';

/** Whether a request may do what needs a session. */
export async function hasSession(sessions: SessionsService, request: Request): Promise<boolean> {
  return sessions.isOpenToAll || sessions.isValid(sessionToken(request));
}

async function requireSession(sessions: SessionsService, request: Request): Promise<void> {
  if (await hasSession(sessions, request)) return;
  throw new ApiError(
    'no-key',
    'This needs a session. Open the link with the key that the server printed when it started.',
  );
}

/** Closes every route to requests without a session, unless the route is declared public. */
@Injectable()
export class AccessGuard implements CanActivate {
  readonly #reflector: Reflector;
  readonly #sessions: SessionsService;

  constructor(reflector: Reflector, sessions: SessionsService) {
    this.#reflector = reflector;
    this.#sessions = sessions;
  }

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (this.#reflector.get<boolean | undefined>(PUBLIC, context.getHandler()) === true) return true;
    await requireSession(this.#sessions, context.switchToHttp().getRequest<Request>());
    return true;
  }
}

/** The same for what is mounted beside the routes of controllers, such as the description of the API. */
export function sessionRequired(sessions: SessionsService): RequestHandler {
  return (request: Request, _response: Response, next: NextFunction) => {
    requireSession(sessions, request).then(() => {
      next();
    }, next);
  };
}
