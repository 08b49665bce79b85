import { createHash } from 'node:crypto';
import { Logger } from '@nestjs/common';
import type { StudyDocument } from '@schritt/core/document';
import type { Request } from 'express';
import { LRUCache } from 'lru-cache';
import { ApiError } from '../errors/api-error.ts';
import { hasSession } from '../access/access.guard.ts';
import type { SessionsService } from '../access/sessions.service.ts';
import type { EntriesService } from '../entries/entries.service.ts';
import type { RequestPool } from '../threads/request-pool.ts';

/** Milliseconds that a page waits for its first picture. Without it, it makes everything itself. */
const PATIENCE = 250;
/** Characters of a picture above which it would take longer than it saves. */
const MAX_LENGTH = 400_000;
/** Characters of all pictures that are kept. */
const MAX_KEPT = 20e6;

/** The addresses of studies. What is asked for of a view is not in a first picture. */
const STUDY = /^\/(studies|shown)\/([\w-]+)$/;

export interface PictureParts {
  readonly entries: EntriesService;
  readonly sessions: SessionsService;
  readonly pool: RequestPool;
  /** The file of the program that makes them. */
  readonly program: string;
}

/**
 * First pictures of studies: what a browser shows while the page is being fetched and started. A request that may not
 * read a study gets none, and neither does a page for which it cannot be made in a moment.
 */
export class FirstPictures {
  readonly #parts: PictureParts;
  /** By digests of what they show; null for a study of which there is none. */
  readonly #kept = new LRUCache<string, { readonly html: string | null }>({
    maxSize: MAX_KEPT,
    sizeCalculation: ({ html }) => (html?.length ?? 0) + 1,
  });
  readonly #underWay = new Map<string, Promise<string | null>>();
  readonly #logger = new Logger(FirstPictures.name);

  constructor(parts: PictureParts) {
    this.#parts = parts;
  }

  /** The first picture of the page that is requested; null where there is none. */
  async of(request: Request): Promise<string | null> {
    const [, kind, id = ''] = STUDY.exec(request.originalUrl) ?? [];
    if (kind === undefined) return null;
    try {
      const document = kind === 'shown' ? await this.#shown(id) : await this.#stored(id, request);
      return document && (await this.#inTime(document, `/${kind}`));
    } catch (thrown) {
      // the page itself says what is wrong with a study
      if (!(thrown instanceof ApiError)) this.#logger.warn(thrown);
      return null;
    }
  }

  async #stored(id: string, request: Request): Promise<StudyDocument | null> {
    const { sessions, entries } = this.#parts;
    if (!(await hasSession(sessions, request))) return null;
    const { document } = await entries.read('study', id);
    return document.kind === 'study' ? document : null;
  }

  async #shown(at: string): Promise<StudyDocument | null> {
    const { document } = await this.#parts.entries.shown(at);
    return document.kind === 'study' ? document : null;
  }

  async #inTime(document: StudyDocument, path: string): Promise<string | null> {
    const key = createHash('sha256').update(path).update(JSON.stringify(document)).digest('base64url');
    const kept = this.#kept.get(key);
    if (kept !== undefined) return kept.html;
    const made = this.#underWay.get(key) ?? this.#make(key, document, path);
    let timer: NodeJS.Timeout | undefined;
    const patience = new Promise<null>((done) => {
      timer = setTimeout(() => done(null), PATIENCE);
    });
    return Promise.race([made, patience]).finally(() => clearTimeout(timer));
  }

  /** A picture is made once, however many requests wait for it; what comes too late is there for the next page. */
  #make(key: string, document: StudyDocument, path: string): Promise<string | null> {
    const { pool, program } = this.#parts;
    const made = pool
      .picture(document, { path, program })
      .then((html) => {
        const fitting = html !== null && html.length <= MAX_LENGTH ? html : null;
        this.#kept.set(key, { html: fitting });
        return fitting;
      })
      .finally(() => this.#underWay.delete(key));
    this.#underWay.set(key, made);
    return made;
  }
}
