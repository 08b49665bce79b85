import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How often a job was begun, and how large its results are. */
export class BoundJobs1700000000003 implements MigrationInterface {
  readonly name = 'BoundJobs1700000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "begun" integer NOT NULL DEFAULT 0`);
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "bytes" integer NOT NULL DEFAULT 0`);
    await runner.query(`UPDATE "jobs" SET "bytes" = coalesce(length("runs"), 0)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['bytes', 'begun']) await runner.query(`ALTER TABLE "jobs" DROP COLUMN "${column}"`);
  }
}
