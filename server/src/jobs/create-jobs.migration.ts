import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Long studies with their results. */
export class CreateJobs1700000000001 implements MigrationInterface {
  readonly name = 'CreateJobs1700000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "jobs" (
        "id" varchar PRIMARY KEY NOT NULL,
        "key" text NOT NULL,
        "state" text NOT NULL,
        "document" text NOT NULL,
        "runs" text,
        "why" text,
        "createdAt" datetime NOT NULL DEFAULT (datetime('now'))
      )`,
    );
    await runner.query(`CREATE INDEX "jobs_by_key" ON "jobs" ("key")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "jobs"`);
  }
}
