import { promisify } from 'node:util';
import {
  type CallHandler,
  type ExecutionContext,
  Injectable,
  type NestInterceptor,
  SetMetadata,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import express, { type Request, type Response } from 'express';
import type { Observable } from 'rxjs';
import { ApiError } from '../errors/api-error.ts';

/** What the body of a route may hold. */
export interface BodyLimits {
  readonly bytes: number;
  /** Members of objects and lists, at all depths together. */
  readonly values: number;
}

/** Values inside one another; no document of the file format has as many. */
const MAX_DEPTH = 12;
/** Keys that have a meaning of their own in the language. */
const RESERVED_KEYS: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

const LIMITS = 'body limits';

/** Declares that a route takes a JSON body, and how large it may be. */
export const JsonBody = (limits: BodyLimits): MethodDecorator => SetMetadata(LIMITS, limits);

/** The limits of a body that holds a document of the file format. */
export const DOCUMENT_BODY: BodyLimits = { bytes: 1_000_000, values: 5_000 };

function refuse(message: string, place = 'the body'): never {
  throw new ApiError('bad-request', 'The request is not valid.', [{ place, message }]);
}

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const OPENING: ReadonlySet<number> = new Set([0x5b, 0x7b]);
const CLOSING: ReadonlySet<number> = new Set([0x5d, 0x7d]);

/**
 * Counts what the raw text of a body holds, so that a body of the wrong size is refused before anything is built of it.
 *
 * @throws ApiError where it is nested too deeply or holds too many values
 */
export function checkSize(body: Uint8Array, { values }: Pick<BodyLimits, 'values'>): void {
  let isInString = false;
  let depth = 0;
  let found = 0;
  for (let i = 0; i < body.length; i += 1) {
    const byte = body[i]!;
    if (isInString) {
      if (byte === BACKSLASH) i += 1;
      else if (byte === QUOTE) isInString = false;
    } else if (byte === QUOTE) isInString = true;
    else if (OPENING.has(byte)) {
      depth += 1;
      found += 1;
      if (depth > MAX_DEPTH) refuse(`is nested more than ${MAX_DEPTH} levels deep`);
    } else if (CLOSING.has(byte)) depth -= 1;
    else if (byte === COMMA) found += 1;
    if (found > values) refuse(`has more than ${values} values`);
  }
}

/** The place of the first reserved key in a value; null where there is none. */
export function reservedKey(value: unknown, place = ''): string | null {
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, member] of Object.entries(value)) {
    const own = Array.isArray(value) ? `${place}[${key}]` : place === '' ? key : `${place}.${key}`;
    const found = !Array.isArray(value) && RESERVED_KEYS.has(key) ? own : reservedKey(member, own);
    if (found !== null) return found;
  }
  return null;
}

/**
 * Parses the bytes of a body.
 *
 * @throws ApiError for what is not a JSON object within the limits
 */
export function parseBody(body: Uint8Array, limits: Pick<BodyLimits, 'values'>): unknown {
  checkSize(body, limits);
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body));
  } catch {
    throw new ApiError('bad-request', 'The body is not valid JSON.');
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value)) refuse('must be a JSON object');
  const reserved = reservedKey(value);
  if (reserved !== null) refuse('is not a field of this format', reserved);
  return value;
}

/**
 * Reads the body of a request after its route has let the request in, within the limits of that route. A route that
 * declares no body gets an empty one, and nothing is read.
 */
@Injectable()
export class JsonBodyInterceptor implements NestInterceptor {
  readonly #reflector: Reflector;

  constructor(reflector: Reflector) {
    this.#reflector = reflector;
  }

  async intercept(context: ExecutionContext, next: CallHandler): Promise<Observable<unknown>> {
    const limits = this.#reflector.get<BodyLimits | undefined>(LIMITS, context.getHandler());
    const http = context.switchToHttp();
    const request = http.getRequest<Request>();
    request.body = {};
    if (limits === undefined) return next.handle();
    const read = promisify(express.raw({ type: 'application/json', limit: limits.bytes }));
    await read(request, http.getResponse<Response>());
    const body: unknown = request.body;
    if (!(body instanceof Uint8Array)) refuse('must be JSON, sent as application/json');
    request.body = parseBody(body, limits);
    return next.handle();
  }
}
