import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Request, Response } from 'express';
import { ApiError } from '../errors/api-error.ts';

const COOKIE = 'schritt-key';
const KEPT = new RegExp(`(?:^|;\\s*)${COOKIE}=([^;]*)`);
/** Days that a browser keeps the key. */
const DAYS = 180;
/** Milliseconds that the answer to a wrong key waits, doubled with every one more, and at most. */
const FIRST_WAIT = 250;
const LONGEST_WAIT = 8_000;
/** Milliseconds after which wrong keys are forgotten. */
const FORGOTTEN = 600_000;
/** Wrong keys that wait at once. */
const MOST_WAITING = 20;

function digest(text: string): Buffer {
  return createHash('sha256').update(text).digest();
}

/** The key of a data folder: the one that is set, or one that is made once and kept there. */
export function keyOf(folder: string, chosen: string | null): string {
  if (chosen !== null) return chosen;
  const file = join(folder, 'key');
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  const made = randomBytes(24).toString('base64url');
  writeFileSync(file, `${made}\n`, { mode: 0o600 });
  return made;
}

function cookieOf(request: Request): string | null {
  const found = KEPT.exec(request.headers.cookie ?? '');
  return found?.[1] ?? null;
}

/** Knows the key, and who has it; whoever guesses is made to wait. */
export class KeyHolder {
  readonly #key: Buffer;
  /** What browsers keep: it opens the door, and does not tell the key. */
  readonly #token: string;
  #wrong = 0;
  #lastWrong = 0;
  #waiting = 0;

  constructor(key: string) {
    this.#key = digest(key);
    this.#token = createHash('sha256').update('kept by a browser\n').update(key).digest('base64url');
  }

  isHeldBy(request: Request): boolean {
    const token = cookieOf(request);
    return token !== null && timingSafeEqual(digest(token), digest(this.#token));
  }

  /**
   * Takes a key that somebody came with, and gives the browser what it keeps.
   *
   * @throws ApiError for a wrong one, after a pause that grows with every wrong one
   */
  async open(key: string, response: Response): Promise<void> {
    if (Date.now() - this.#lastWrong > FORGOTTEN) this.#wrong = 0;
    // a right key waits as well while somebody guesses: else the pause would tell which one is right
    await this.#pause();
    if (!timingSafeEqual(digest(key), this.#key)) {
      this.#wrong += 1;
      this.#lastWrong = Date.now();
      throw new ApiError('no-key', 'this is not the key of this server');
    }
    response.cookie(COOKIE, this.#token, {
      httpOnly: true,
      sameSite: 'lax',
      maxAge: DAYS * 86_400_000,
      path: '/',
    });
  }

  async #pause(): Promise<void> {
    if (this.#wrong === 0) return;
    if (this.#waiting >= MOST_WAITING)
      throw new ApiError('too-many', 'too many keys are tried at once; wait a minute');
    this.#waiting += 1;
    const wait = Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** (this.#wrong - 1));
    await new Promise((done) => setTimeout(done, wait));
    this.#waiting -= 1;
  }
}
