import { Logger } from '@nestjs/common';
import { Redis } from 'ioredis';
import { connectionTo } from './connection.ts';
import { PREFIX } from './queue-data.ts';

/** Who is at the queue. */
export interface Present {
  readonly servers: readonly string[];
  readonly workers: readonly string[];
}

/** Seconds after which someone who has not been heard of is gone. */
const GONE = 10;
/** Milliseconds between two calls, and those that one waits for its answer. */
const EVERY = 2000;
const PATIENCE = 4000;

const NOBODY: Present = { servers: [], workers: [] };

/** What a member is known by: its own name, and the version of its numbers. */
export interface Member {
  readonly name: string;
  readonly version: string;
}

/** The servers and workers at a queue call their names in turn, so that each knows who is there. */
export class Registry {
  readonly #redis: Redis;
  readonly #role: 'servers' | 'workers';
  readonly #member: Member;
  readonly #logger = new Logger('queue');
  #timer: NodeJS.Timeout | undefined;
  #present: Present | null = null;
  #isClosed = false;

  /** @param role what it calls itself */
  constructor(url: string, role: 'servers' | 'workers', member: Member) {
    const { url: at, ...options } = connectionTo(url);
    // a call that cannot be made is made again anyway: it need not wait
    this.#redis = new Redis(at, { ...options, maxRetriesPerRequest: 1, lazyConnect: true });
    this.#redis.on('error', () => undefined);
    this.#role = role;
    this.#member = member;
  }

  /** Who is there, of all versions; null while the queue cannot be reached. */
  get present(): Present | null {
    return this.#present;
  }

  /** Those there whose numbers are of one version. */
  static of(present: Present | null, version: string): Present {
    const own = (names: readonly string[]): readonly string[] =>
      names.filter((name) => name.startsWith(`${version} `));
    const { servers, workers } = present ?? NOBODY;
    return { servers: own(servers), workers: own(workers) };
  }

  /**
   * Calls from now on.
   *
   * @param heard told after every call who is there; null where the queue cannot be reached
   */
  start(heard: (present: Present | null) => void): void {
    const call = async (): Promise<void> => {
      const before = this.#present;
      this.#present = await this.#call();
      if (this.#isClosed) return;
      if (this.#present === null && before !== null) this.#logger.warn('the queue cannot be reached');
      heard(this.#present);
      this.#timer = setTimeout(() => void call(), EVERY);
    };
    void call();
  }

  async close(): Promise<void> {
    this.#isClosed = true;
    clearTimeout(this.#timer);
    const { name, version } = this.#member;
    if (this.#redis.status === 'ready')
      await this.#redis.zrem(`${PREFIX}:${this.#role}`, `${version} ${name}`).catch(() => 0);
    this.#redis.disconnect();
  }

  async #call(): Promise<Present | null> {
    let timer: NodeJS.Timeout | undefined;
    const silence = new Promise<null>((done) => {
      timer = setTimeout(() => done(null), PATIENCE);
    });
    try {
      return await Promise.race([this.#ask(), silence]);
    } catch {
      return null;
    } finally {
      clearTimeout(timer);
    }
  }

  async #ask(): Promise<Present> {
    const { name, version } = this.#member;
    // by the clock of the queue: those of the machines may differ
    const [now] = await this.#redis.time();
    const least = Number(now) - GONE;
    await this.#redis.zadd(`${PREFIX}:${this.#role}`, Number(now), `${version} ${name}`);
    await this.#redis.zremrangebyscore(`${PREFIX}:${this.#role}`, '-inf', Number(now) - 100 * GONE);
    const [servers, workers] = await Promise.all(
      (['servers', 'workers'] as const).map((role) =>
        this.#redis.zrangebyscore(`${PREFIX}:${role}`, least, '+inf'),
      ),
    );
    return { servers: servers ?? [], workers: workers ?? [] };
  }
}
