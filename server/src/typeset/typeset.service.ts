import { setImmediate } from 'node:timers/promises';
import { typesetOptions } from '@schritt/core/notation';
import { Injectable } from '@nestjs/common';
import { LRUCache } from 'lru-cache';
import type { FormulaDto } from './typeset.dto.ts';

/** Formulas that are remembered: most pages show those of the demo studies and of the library. */
const MOST_REMEMBERED = 1000;

/** Sets formulas, each with as much as a page would make of it by itself. */
@Injectable()
export class TypesetService {
  readonly #known = new LRUCache<string, string>({ max: MOST_REMEMBERED });

  async set(formulas: readonly FormulaDto[]): Promise<string[]> {
    // a server that nobody looks at does without
    const { default: katex } = await import('katex');
    const all: string[] = [];
    for (const { tex, block } of formulas) {
      const key = `${block} ${tex}`;
      let html = this.#known.get(key);
      if (html === undefined) {
        html = katex.renderToString(tex, typesetOptions(block, 'htmlAndMathml'));
        this.#known.set(key, html);
        // others get their turn between two formulas
        await setImmediate();
      }
      all.push(html);
    }
    return all;
  }
}
