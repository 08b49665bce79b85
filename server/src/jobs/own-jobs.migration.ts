import type { MigrationInterface, QueryRunner } from 'typeorm';

/** For whom a job is done. */
export class OwnJobs1700000000006 implements MigrationInterface {
  readonly name = 'OwnJobs1700000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "owner" text NOT NULL DEFAULT ''`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "jobs" DROP COLUMN "owner"`);
  }
}
