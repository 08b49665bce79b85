import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The first layout of the store. */
export class CreateEntries1700000000000 implements MigrationInterface {
  readonly name = 'CreateEntries1700000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "entries" (
        "id" varchar PRIMARY KEY NOT NULL,
        "kind" text NOT NULL,
        "title" text NOT NULL,
        "document" text NOT NULL,
        "version" integer NOT NULL,
        "createdAt" datetime NOT NULL DEFAULT (datetime('now')),
        "updatedAt" datetime NOT NULL DEFAULT (datetime('now'))
      )`,
    );
    await runner.query(`CREATE INDEX "entries_by_kind" ON "entries" ("kind")`);
    await runner.query(`CREATE TABLE "seeds" ("name" text PRIMARY KEY NOT NULL)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "seeds"`);
    await runner.query(`DROP TABLE "entries"`);
  }
}
