import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { SchrittDocument } from '@schritt/core/document';
import { readDocumentText } from '@schritt/core/format';
import { LIBRARY } from '@schritt/core/notation';
import { Inject, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Entry } from '../entries/entry.entity.ts';
import { stored } from '../entries/excerpt.ts';
import { Seed } from './seed.entity.ts';

/** Where the demo files are; null for a server without them. */
export const DEMO_FOLDER = Symbol('demo folder');

interface DemoDocument {
  readonly name: string;
  readonly document: SchrittDocument;
}

/** The file to start from. */
const FIRST = 'sluice.schritt.json';

function firstFirst(a: string, b: string): number {
  return Number(b === FIRST) - Number(a === FIRST) || a.localeCompare(b, 'en');
}

/** Puts the demo files and the library of methods in, each once and never again. */
@Injectable()
export class SeedService implements OnApplicationBootstrap {
  readonly #logger = new Logger('demo');
  readonly #store: DataSource;
  readonly #folder: string | null;

  constructor(store: DataSource, @Inject(DEMO_FOLDER) folder: string | null) {
    this.#store = store;
    this.#folder = folder;
  }

  async onApplicationBootstrap(): Promise<void> {
    if (this.#folder === null) return;
    const documents = [...this.#files(this.#folder), ...libraryMethods()];
    const now = Date.now();
    await this.#store.transaction(async (manager) => {
      for (const [place, { name, document }] of documents.entries()) {
        if (await manager.existsBy(Seed, { name })) continue;
        // lists begin with what was changed last: the first of the files is first
        const updatedAt = new Date(now - place);
        await manager.save(manager.create(Entry, { kind: document.kind, ...stored(document), updatedAt }));
        await manager.save(manager.create(Seed, { name }));
        this.#logger.log(`added ${name}`);
      }
    });
  }

  /** The demo files, each with its problem; a problem that several studies have in common comes once. */
  *#files(folder: string): Generator<DemoDocument> {
    const problems = new Set<string>();
    for (const name of readdirSync(folder).sort(firstFirst)) {
      if (!name.endsWith('.schritt.json')) continue;
      const reading = readDocumentText(readFileSync(join(folder, name), 'utf8'));
      if (!reading.ok) {
        this.#logger.warn(`${name} is skipped: ${reading.errors.map((e) => `${e.place}: ${e.message}`).join('; ')}`);
        continue;
      }
      const { document } = reading;
      yield { name, document };
      if (document.kind !== 'study' || problems.has(document.problem.text)) continue;
      problems.add(document.problem.text);
      yield { name: `${name}#problem`, document: { schritt: 1, kind: 'problem', ...document.problem } };
    }
  }
}

function libraryMethods(): readonly DemoDocument[] {
  return LIBRARY.map(({ title, text }) => ({
    name: `library/${title}`,
    document: { schritt: 1, kind: 'method', title, text },
  }));
}
