import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When an entry was put into the bin; lists are ordered by the last change. */
export class BinEntries1700000000004 implements MigrationInterface {
  readonly name = 'BinEntries1700000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "entries" ADD COLUMN "deletedAt" datetime`);
    await runner.query(`DROP INDEX "entries_by_title"`);
    await runner.query(
      `CREATE INDEX "entries_by_change" ON "entries" ("kind", "deletedAt", "updatedAt", "id")`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "entries_by_change"`);
    await runner.query(`CREATE INDEX "entries_by_title" ON "entries" ("kind", "title", "createdAt")`);
    await runner.query(`ALTER TABLE "entries" DROP COLUMN "deletedAt"`);
  }
}
