import { createHash } from 'node:crypto';
import type Database from 'better-sqlite3';

/** The table of a copy that holds its checksum. */
const TABLE = 'copy_checksum';

function quoted(name: string): string {
  return `"${name.replaceAll('"', '""')}"`;
}

/** SHA-256 digest of the definitions and rows of all tables but the one that holds the checksum itself. */
export function contentChecksum(store: Database.Database): string {
  const digest = createHash('sha256');
  const tables = store
    .prepare<[string], { readonly name: string; readonly sql: string }>(
      "SELECT name, sql FROM sqlite_schema WHERE type = 'table' AND name <> ? AND name NOT LIKE 'sqlite_%' ORDER BY name",
    )
    .all(TABLE);
  for (const { name, sql } of tables) {
    digest.update(`${JSON.stringify([name, sql])}\n`);
    for (const row of store
      .prepare(`SELECT * FROM ${quoted(name)} ORDER BY rowid`)
      .raw()
      .iterate())
      digest.update(`${JSON.stringify(row)}\n`);
  }
  return digest.digest('hex');
}

/** Writes the checksum of a copy into the copy. */
export function writeChecksum(copy: Database.Database): void {
  copy.exec(`DROP TABLE IF EXISTS ${TABLE}; CREATE TABLE ${TABLE} (sha256 text NOT NULL)`);
  copy.prepare(`INSERT INTO ${TABLE} VALUES (?)`).run(contentChecksum(copy));
}

/** Removes the checksum of a copy that is about to become a store, which changes. */
export function dropChecksum(store: Database.Database): void {
  store.exec(`DROP TABLE IF EXISTS ${TABLE}`);
}

/** Whether a copy still is what it was when it was made; null where it carries no checksum. */
export function isUnchanged(copy: Database.Database): boolean | null {
  const has = copy.prepare('SELECT 1 FROM sqlite_schema WHERE name = ?').get(TABLE);
  if (has === undefined) return null;
  return copy.prepare(`SELECT sha256 FROM ${TABLE}`).pluck().get() === contentChecksum(copy);
}
