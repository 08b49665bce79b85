import type { Document } from '@schritt/core/document';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { ApiError } from '../errors/api-error.ts';
import { Entry } from './entry.entity.ts';
import type { EntryDto } from './entry.dto.ts';

function dto(entry: Entry): EntryDto {
  const { id, kind, version, document } = entry;
  return { id, kind, version, updatedAt: entry.updatedAt.toISOString(), document };
}

/** Stores documents; a replacement that was made from an older version changes nothing. */
@Injectable()
export class EntriesService {
  readonly #entries: Repository<Entry>;

  constructor(@InjectRepository(Entry) entries: Repository<Entry>) {
    this.#entries = entries;
  }

  async list(kind: Document['kind']): Promise<readonly EntryDto[]> {
    const entries = await this.#entries.find({ where: { kind }, order: { title: 'ASC', createdAt: 'ASC' } });
    return entries.map(dto);
  }

  async read(kind: Document['kind'], id: string): Promise<EntryDto> {
    return dto(await this.#find(kind, id));
  }

  async create(kind: Document['kind'], document: Document): Promise<EntryDto> {
    this.#mustBe(kind, document);
    const entry = this.#entries.create({ kind, title: document.title, document });
    return dto(await this.#entries.save(entry));
  }

  async replace(kind: Document['kind'], id: string, version: number, document: Document): Promise<EntryDto> {
    this.#mustBe(kind, document);
    const { affected } = await this.#entries
      .createQueryBuilder()
      .update()
      .set({ title: document.title, document, updatedAt: new Date() })
      .where({ id, kind, version })
      .execute();
    const now = await this.#find(kind, id);
    if (affected === 1) return dto(now);
    throw new ApiError(
      'stale-version',
      `this was changed elsewhere: it is at version ${now.version}, and version ${version} was to be replaced`,
      [],
      dto(now),
    );
  }

  async remove(kind: Document['kind'], id: string): Promise<void> {
    await this.#entries.remove(await this.#find(kind, id));
  }

  async #find(kind: Document['kind'], id: string): Promise<Entry> {
    const entry = await this.#entries.findOneBy({ kind, id });
    if (entry === null) throw new ApiError('not-found', `there is no ${kind} with the id ${id}`);
    return entry;
  }

  #mustBe(kind: Document['kind'], document: Document): void {
    if (document.kind === kind) return;
    const message = `must be "${kind}" here, not "${document.kind}"`;
    throw new ApiError('bad-request', 'what was sent is not as it should be', [
      { place: 'document.kind', message },
    ]);
  }
}
