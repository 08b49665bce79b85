import {
  type ExportQuery,
  type StudyDocument,
  type StudyReport,
  studyTable,
  writeTable,
} from '@schritt/core/document';
import { Inject, Injectable } from '@nestjs/common';
import { ApiError } from '../errors/api-error.ts';
import { RequestPool } from '../threads/request-pool.ts';
import { EntriesService } from './entries.service.ts';
import type { TableParamsDto } from './entry.dto.ts';

/** A file with the title of its study. */
interface Titled<C> {
  readonly title: string;
  readonly content: C;
}

/** Runs a stored study and answers its numbers, by the same core as pages and the terminal. */
@Injectable()
export class ReportService {
  readonly #entries: EntriesService;
  readonly #pool: RequestPool;

  constructor(entries: EntriesService, @Inject(RequestPool) pool: RequestPool) {
    this.#entries = entries;
    this.#pool = pool;
  }

  async report(id: string): Promise<StudyReport> {
    return this.#pool.report(await this.#study(id));
  }

  /** What is asked for, as a file. */
  async taken(id: string, asked: ExportQuery): Promise<Titled<Uint8Array>> {
    const document = await this.#study(id);
    return { title: document.title, content: await this.#pool.taken(document, asked) };
  }

  async #study(id: string): Promise<StudyDocument> {
    const { document } = await this.#entries.read('study', id);
    if (document.kind !== 'study') throw new ApiError('not-found', 'this is not a study');
    return document;
  }

  /** A table of a study, in the format asked for. */
  async table({ id, what, as }: TableParamsDto): Promise<Titled<string>> {
    const report = await this.report(id);
    return { title: report.title, content: writeTable(studyTable(report, what), as) };
  }
}
