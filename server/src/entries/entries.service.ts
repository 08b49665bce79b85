import { createHash, randomBytes } from 'node:crypto';
import type { SchrittDocument } from '@schritt/core/document';
import { presentDocument, readDocument } from '@schritt/core/format';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { LRUCache } from 'lru-cache';
import { type FindOptionsWhere, IsNull, Not, Repository } from 'typeorm';
import { ApiError } from '../errors/api-error.ts';
import { Entry } from './entry.entity.ts';
import type { EntryDto, EntryListDto, EntryRowDto, ShownDto } from './entry.dto.ts';
import { stored } from './excerpt.ts';

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The document of a stored row, in the present way of writing it where it is in an older one. */
function documentOf({ document }: Pick<Entry, 'document'>): SchrittDocument {
  const reading = readDocument(parsed(document));
  if (reading.ok) return reading.document;
  throw new ApiError(
    'damaged',
    'what is stored of this entry is damaged; save it as a file to see what is left of it',
  );
}

/** What is answered of an entry; its document is read from the row where it is not at hand. */
function dto(entry: Entry, document = documentOf(entry)): EntryDto {
  const { id, kind, version, shownAt } = entry;
  return {
    id,
    kind,
    version,
    updatedAt: entry.updatedAt.toISOString(),
    shownAt,
    document: presentDocument(document),
  };
}

function titles(methods: string): readonly string[] {
  try {
    const read: unknown = JSON.parse(methods);
    return Array.isArray(read) ? read.filter((title) => typeof title === 'string') : [];
  } catch {
    return [];
  }
}

function row(entry: Entry): EntryRowDto {
  const { id, kind, version, title, excerpt, methods } = entry;
  return {
    id,
    kind,
    version,
    updatedAt: entry.updatedAt.toISOString(),
    title,
    excerpt,
    methods: titles(methods),
  };
}

/** Which entries of a list are asked for. */
export interface ListPart {
  readonly from: number;
  readonly count: number;
  /** Whether the list is that of the bin. */
  readonly bin: boolean;
}

/** Lists that are kept as they were answered last, until something is written. */
const MAX_LISTS = 50;

/** A shared study as it is answered, and what a browser that has it already names it by. */
interface SharedAnswer {
  readonly document: SchrittDocument;
  readonly body: Buffer;
  readonly etag: string;
}

/** Bytes of shared studies that are kept at hand. */
const MAX_SHARED_BYTES = 20e6;

/** Stores documents; a replacement that was made from an older version changes nothing. */
@Injectable()
export class EntriesService {
  readonly #entries: Repository<Entry>;
  readonly #lists = new LRUCache<string, Promise<Buffer>>({ max: MAX_LISTS });
  /** Shared studies as they are answered: a class opens the same one at once. */
  readonly #shared = new LRUCache<string, SharedAnswer>({
    maxSize: MAX_SHARED_BYTES,
    maxEntrySize: MAX_SHARED_BYTES,
  });

  constructor(@InjectRepository(Entry) entries: Repository<Entry>) {
    this.#entries = entries;
  }

  /** A part of a list as JSON: it is asked for often and written seldom. */
  list(kind: SchrittDocument['kind'], part: ListPart): Promise<Buffer> {
    const key = `${kind}/${part.from}/${part.count}/${part.bin}`;
    const ready = this.#lists.get(key);
    if (ready !== undefined) return ready;
    const made = this.#listed(kind, part).then((list) => Buffer.from(JSON.stringify(list)));
    this.#lists.set(key, made);
    // a list that failed is asked for again
    made.catch(() => this.#lists.delete(key));
    return made;
  }

  async #listed(kind: SchrittDocument['kind'], { from, count, bin }: ListPart): Promise<EntryListDto> {
    const [entries, total] = await this.#entries.findAndCount({
      select: {
        id: true,
        kind: true,
        version: true,
        updatedAt: true,
        title: true,
        excerpt: true,
        methods: true,
      },
      where: { kind, deletedAt: bin ? Not(IsNull()) : IsNull() },
      // what was changed last is first
      order: bin ? { deletedAt: 'DESC', id: 'ASC' } : { updatedAt: 'DESC', id: 'ASC' },
      skip: from,
      take: count,
    });
    return { entries: entries.map(row), total };
  }

  async read(kind: SchrittDocument['kind'], id: string): Promise<EntryDto> {
    return dto(await this.#find(kind, id));
  }

  /** What is stored, as it is, also where it is damaged. */
  async file(kind: SchrittDocument['kind'], id: string): Promise<string> {
    return (await this.#find(kind, id)).document;
  }

  async create(kind: SchrittDocument['kind'], document: SchrittDocument): Promise<EntryDto> {
    this.#mustBe(kind, document);
    // the default of the column counts seconds, and lists are ordered by this
    const updatedAt = new Date();
    const made = await this.#entries.save(this.#entries.create({ kind, ...stored(document), updatedAt }));
    this.#changed();
    return dto(made, document);
  }

  async replace(
    kind: SchrittDocument['kind'],
    id: string,
    version: number,
    document: SchrittDocument,
  ): Promise<EntryDto> {
    this.#mustBe(kind, document);
    const { affected } = await this.#entries
      .createQueryBuilder()
      .update()
      .set({ ...stored(document), updatedAt: new Date() })
      .where({ id, kind, version, deletedAt: IsNull() })
      .execute();
    this.#changed();
    const now = await this.#find(kind, id);
    if (affected === 1) return dto(now);
    throw new ApiError(
      'stale-version',
      `this entry was edited elsewhere: it is at version ${now.version}, not ${version}`,
      [],
      dto(now),
    );
  }

  /** Puts an entry into the bin, or leaves it there. */
  async remove(kind: SchrittDocument['kind'], id: string): Promise<void> {
    const moved = await this.#move(
      { kind, id, deletedAt: IsNull() },
      { deletedAt: new Date(), shownAt: null },
    );
    this.#changed();
    if (moved === 0) await this.#mustExist(kind, id);
  }

  /** Takes an entry out of the bin, or leaves it in its list. */
  async restore(kind: SchrittDocument['kind'], id: string): Promise<void> {
    const moved = await this.#move({ kind, id, deletedAt: Not(IsNull()) }, { deletedAt: null });
    this.#changed();
    if (moved === 0) await this.#mustExist(kind, id);
  }

  /** @throws ApiError for an entry that is not in the bin */
  async deletePermanently(kind: SchrittDocument['kind'], id: string): Promise<void> {
    const { affected } = await this.#entries.delete({ kind, id, deletedAt: Not(IsNull()) });
    this.#changed();
    if (affected !== 0) return;
    await this.#mustExist(kind, id);
    throw new ApiError('not-in-bin', `Only a ${kind} in the bin can be deleted permanently.`);
  }

  /** Into the bin or out of it, which is no change of the document: version and time of change stay. */
  async #move(
    which: FindOptionsWhere<Entry>,
    where: Partial<Pick<Entry, 'deletedAt' | 'shownAt'>>,
  ): Promise<number> {
    const { affected } = await this.#entries
      .createQueryBuilder()
      .update()
      .set({ ...where, version: () => '"version"', updatedAt: () => '"updatedAt"' })
      .where(which)
      .execute();
    return affected ?? 0;
  }

  /** Shows an entry to anyone with the link that is answered. */
  async show(kind: SchrittDocument['kind'], id: string): Promise<string> {
    const { shownAt } = await this.#find(kind, id);
    if (shownAt !== null) return shownAt;
    const made = randomBytes(18).toString('base64url');
    await this.#setShown(id, made);
    return made;
  }

  async hide(kind: SchrittDocument['kind'], id: string): Promise<void> {
    await this.#find(kind, id);
    await this.#setShown(id, null);
  }

  /** The document behind a link, as it is answered. */
  async shown(shownAt: string): Promise<SharedAnswer> {
    const known = this.#shared.get(shownAt);
    if (known !== undefined) return known;
    const entry = await this.#entries.findOneBy({ shownAt });
    if (entry === null) throw new ApiError('not-found', 'this study is not shared');
    const document = documentOf(entry);
    const answer: ShownDto = { document };
    const body = Buffer.from(JSON.stringify(answer));
    const digest = createHash('sha256').update(body).digest('base64url');
    const shared = { document, body, etag: `"${digest.slice(0, 22)}"` };
    this.#shared.set(shownAt, shared, { size: body.length });
    return shared;
  }

  /** What was put together before is no longer true. */
  #changed(): void {
    this.#lists.clear();
    this.#shared.clear();
  }

  /** Showing an entry is no change of its document: the version stays. */
  async #setShown(id: string, shownAt: string | null): Promise<void> {
    await this.#entries.query('UPDATE "entries" SET "shownAt" = ? WHERE "id" = ?', [shownAt, id]);
    this.#shared.clear();
  }

  async #find(kind: SchrittDocument['kind'], id: string): Promise<Entry> {
    const entry = await this.#entries.findOneBy({ kind, id, deletedAt: IsNull() });
    if (entry === null) throw this.#missing(kind, id);
    return entry;
  }

  /** @throws ApiError for an id that is neither in the list nor in the bin */
  async #mustExist(kind: SchrittDocument['kind'], id: string): Promise<void> {
    if (!(await this.#entries.existsBy({ kind, id }))) throw this.#missing(kind, id);
  }

  #missing(kind: SchrittDocument['kind'], id: string): ApiError {
    return new ApiError('not-found', `there is no ${kind} with the id ${id}`);
  }

  #mustBe(kind: SchrittDocument['kind'], document: SchrittDocument): void {
    if (document.kind === kind) return;
    const message = `must be "${kind}" here, not "${document.kind}"`;
    throw new ApiError('bad-request', 'the request is not valid', [{ place: 'document.kind', message }]);
  }
}
