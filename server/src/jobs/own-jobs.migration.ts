import type { MigrationInterface, QueryRunner } from 'typeorm';

/** For whom a job is done, and how many runs are in it. */
export class OwnJobs1700000000006 implements MigrationInterface {
  readonly name = 'OwnJobs1700000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "owner" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "total" integer NOT NULL DEFAULT 0`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['total', 'owner']) await runner.query(`ALTER TABLE "jobs" DROP COLUMN "${column}"`);
  }
}
