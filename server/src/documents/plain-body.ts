import type { NextFunction, Request, Response } from 'express';
import { ApiError } from '../errors/api-error.ts';
import { checkShape } from './body-shape.ts';

/** Fields that an object of a body may have, and values inside one another. */
const MOST_FIELDS = 40;
const DEEPEST = 12;
/** Names that mean something to the language itself. */
const RESERVED: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

function refuse(place: string, message: string): never {
  throw new ApiError('bad-request', 'what was sent is not as it should be', [{ place, message }]);
}

/** Looks through a body before any route does: nothing this API takes is deep, wide or oddly named. */
export function checkPlain(body: unknown): void {
  const open: { readonly value: unknown; readonly place: string; readonly depth: number }[] = [
    { value: body, place: '', depth: 0 },
  ];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { value, place, depth } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (depth > DEEPEST) refuse(place.slice(0, 100), `values are nested at most ${DEEPEST} deep here`);
    if (Array.isArray(value)) {
      value.forEach((one: unknown, i) =>
        open.push({ value: one, place: `${place}[${i}]`, depth: depth + 1 }),
      );
      continue;
    }
    const keys = Object.keys(value);
    if (keys.length > MOST_FIELDS)
      refuse(
        place === '' ? 'the body' : place,
        `has ${keys.length} fields; no object here has more than ${MOST_FIELDS}`,
      );
    for (const [key, one] of Object.entries(value)) {
      const own = place === '' ? key : `${place}.${key}`;
      if (RESERVED.has(key)) refuse(own, 'is not a field of this format');
      open.push({ value: one, place: own, depth: depth + 1 });
    }
  }
}

/** A body as JSON. */
function parsed(body: Uint8Array): unknown {
  checkShape(body);
  try {
    const value: unknown = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body));
    checkPlain(value);
    return value;
  } catch (thrown) {
    if (thrown instanceof ApiError) throw thrown;
    throw new ApiError('bad-request', 'the body is not JSON');
  }
}

/** Reads a body, looked through before and after, for the routes. */
export function plainBody(request: Request, _response: Response, next: NextFunction): void {
  const body: unknown = request.body;
  request.body = body instanceof Uint8Array ? parsed(body) : {};
  next();
}
