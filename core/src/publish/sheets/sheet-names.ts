import { plainName } from '../programs/names.ts';

/** Names that a spreadsheet takes for cells, columns, rows or values. */
const CELL_LIKE = /^(?:[a-z]{1,3}\d+|r\d*(?:c\d*)?|c\d*|true|false|pi|e)$/i;

/** Names of cells: none that looks like a cell, none twice whatever the case of letters. */
export class CellNames {
  readonly #used = new Set<string>();

  make(request: string): string {
    const base = plainName(request);
    let name = CELL_LIKE.test(base) ? `${base}_` : base;
    for (let i = 2; this.#used.has(name.toLowerCase()); i += 1) name = `${base}_${i}`;
    this.#used.add(name.toLowerCase());
    return name;
  }
}
