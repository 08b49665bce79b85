import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a list shows of an entry, so that lists carry no bodies, and the link at which it is shown to others. */
export class ShowEntries1700000000002 implements MigrationInterface {
  readonly name = 'ShowEntries1700000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "entries" ADD COLUMN "excerpt" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "entries" ADD COLUMN "methods" text NOT NULL DEFAULT '[]'`);
    await runner.query(`ALTER TABLE "entries" ADD COLUMN "shownAt" text`);
    await runner.query(`CREATE UNIQUE INDEX "entries_by_shown" ON "entries" ("shownAt")`);
    await runner.query(`CREATE INDEX "entries_by_title" ON "entries" ("kind", "title", "createdAt")`);
    // a row whose document is damaged keeps the empty ones
    await runner.query(
      `UPDATE "entries" SET "excerpt" = substr(coalesce(
          json_extract("document", '$.problem.text'), json_extract("document", '$.text'), ''), 1, 1200)
        WHERE json_valid("document")`,
    );
    await runner.query(
      `UPDATE "entries" SET "methods" = (
          SELECT json_group_array(json_extract("value", '$.title')) FROM json_each("entries"."document", '$.methods') WHERE "key" < 6)
        WHERE json_valid("document") AND "kind" = 'study'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "entries_by_title"`);
    await runner.query(`DROP INDEX "entries_by_shown"`);
    for (const column of ['shownAt', 'methods', 'excerpt'])
      await runner.query(`ALTER TABLE "entries" DROP COLUMN "${column}"`);
  }
}
