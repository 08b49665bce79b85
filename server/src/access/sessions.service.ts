import { randomBytes, timingSafeEqual } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { ThrottlerStorage } from '@nestjs/throttler';
import { LessThan, MoreThan, Not, Repository } from 'typeorm';
import { ApiError } from '../errors/api-error.ts';
import { ACCESS_OPTIONS, type AccessOptions } from './access-options.ts';
import { digest } from './digest.ts';
import { Session } from './session.entity.ts';

/** Milliseconds after which a session ends by itself. */
export const SESSION_LIFETIME = 180 * 86_400_000;
/** Wrong keys that one address may send in a minute before it has to wait. */
const MAX_WRONG_KEYS = 10;
const MINUTE = 60_000;

function idOf(token: string): string {
  return digest(token).toString('base64url');
}

/** Opens, checks and revokes sessions. */
@Injectable()
export class SessionsService {
  readonly #sessions: Repository<Session>;
  readonly #throttle: ThrottlerStorage;
  /** Digest of the server key; null where no key is needed. */
  readonly #key: Buffer | null;
  /** What sessions are opened with, without telling the key. */
  readonly #keyId: string;

  constructor(
    @InjectRepository(Session) sessions: Repository<Session>,
    @Inject(ThrottlerStorage) throttle: ThrottlerStorage,
    @Inject(ACCESS_OPTIONS) { key }: AccessOptions,
  ) {
    this.#sessions = sessions;
    this.#throttle = throttle;
    this.#key = key === null ? null : digest(key);
    this.#keyId = key === null ? '' : digest(`session\n${key}`).toString('base64url');
  }

  /** Whether everyone who reaches the server may read and write. */
  get isOpenToAll(): boolean {
    return this.#key === null;
  }

  /** Whether a token belongs to a session that has neither ended nor been revoked. */
  async isValid(token: string | null): Promise<boolean> {
    if (token === null) return false;
    return this.#sessions.existsBy({ id: idOf(token), key: this.#keyId, createdAt: this.#isAlive() });
  }

  /**
   * Opens a session for a person who has the key. The right key is never made to wait, so that nobody can lock its
   * owner out by sending wrong ones; what keeps guessing hopeless is the length of the key.
   *
   * @param address where the request comes from; wrong keys are counted by it
   * @returns the token of the session; null where no key is needed
   * @throws ApiError for a wrong key
   */
  async open(key: string, address: string): Promise<string | null> {
    if (this.#key === null) return null;
    if (!timingSafeEqual(digest(key), this.#key)) return this.#refuse(address);
    const token = randomBytes(24).toString('base64url');
    await this.#sessions.delete([
      { key: Not(this.#keyId) },
      { createdAt: LessThan(new Date(Date.now() - SESSION_LIFETIME)) },
    ]);
    await this.#sessions.insert({ id: idOf(token), key: this.#keyId, createdAt: new Date() });
    return token;
  }

  /** Revokes one session. */
  async revoke(token: string | null): Promise<void> {
    if (token !== null) await this.#sessions.delete({ id: idOf(token) });
  }

  /** Revokes the sessions of all browsers. */
  async revokeAll(): Promise<void> {
    await this.#sessions.clear();
  }

  #isAlive(): ReturnType<typeof MoreThan<Date>> {
    return MoreThan(new Date(Date.now() - SESSION_LIFETIME));
  }

  async #refuse(address: string): Promise<never> {
    const { isBlocked, timeToBlockExpire } = await this.#throttle.increment(
      address,
      MINUTE,
      MAX_WRONG_KEYS,
      MINUTE,
      'wrong keys',
    );
    if (isBlocked)
      throw new ApiError('too-many', `Too many wrong keys. Try again in ${timeToBlockExpire} seconds.`);
    throw new ApiError('no-key', 'This is not the key of this server.');
  }
}
