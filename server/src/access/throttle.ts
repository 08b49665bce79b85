import type { NextFunction, Request, RequestHandler, Response } from 'express';

/** Requests that are answered in one turn of the event loop. */
const IN_ONE_TURN = 24;

/**
 * Takes requests a few at a time. The event loop accepts one new connection a turn; were all requests of the others
 * answered in between, who comes when hundreds are there already would wait for seconds.
 */
export function throttle(): RequestHandler {
  const waiting: NextFunction[] = [];
  let isRunning = false;
  const run = (): void => {
    for (const next of waiting.splice(0, IN_ONE_TURN)) next();
    isRunning = waiting.length > 0;
    if (isRunning) setImmediate(run);
  };
  return (_request: Request, _response: Response, next: NextFunction) => {
    waiting.push(next);
    if (isRunning) return;
    isRunning = true;
    setImmediate(run);
  };
}
