import { promisify } from 'node:util';
import {
  type CallHandler,
  type ExecutionContext,
  Injectable,
  type NestInterceptor,
  SetMetadata,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { DOCUMENT_LIMITS, jsonExcess, type JsonLimits, reservedKey } from '@schritt/core/format';
import express, { type Request, type Response } from 'express';
import type { Observable } from 'rxjs';
import { ApiError } from '../errors/api-error.ts';

/** What the body of a route may hold. */
export interface BodyLimits extends JsonLimits {
  readonly bytes: number;
}

const LIMITS = 'body limits';

/** Declares that a route takes a JSON body, and how large it may be. */
export const JsonBody = (limits: BodyLimits): MethodDecorator => SetMetadata(LIMITS, limits);

/** The limits of a body that holds a document of the file format. */
export const DOCUMENT_BODY: BodyLimits = { ...DOCUMENT_LIMITS, bytes: 1_000_000 };

function refuse(message: string, place = 'the body'): never {
  throw new ApiError('bad-request', 'The request is not valid.', [{ place, message }]);
}

/**
 * Parses the bytes of a body.
 *
 * @throws ApiError for what is not a JSON object within the limits
 */
export function parseBody(body: Uint8Array, limits: JsonLimits): unknown {
  const excess = jsonExcess(body, limits);
  if (excess !== null) refuse(excess);
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
