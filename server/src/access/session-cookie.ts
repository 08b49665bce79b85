import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { SESSION_LIFETIME } from './sessions.service.ts';

const NAME = 'schritt-session';
const OPTIONS = { httpOnly: true, sameSite: 'lax', path: '/' } as const;

/** The session token of a request; null where it carries none. */
export function sessionToken(request: Request): string | null {
  return parse(request.headers.cookie ?? '')[NAME] ?? null;
}

/** Makes the browser keep a session token out of reach of scripts. */
export function setSessionCookie(response: Response, token: string): void {
  response.cookie(NAME, token, { ...OPTIONS, secure: response.req.secure, maxAge: SESSION_LIFETIME });
}

/** Makes the browser drop its session token. */
export function clearSessionCookie(response: Response): void {
  response.clearCookie(NAME, OPTIONS);
}
