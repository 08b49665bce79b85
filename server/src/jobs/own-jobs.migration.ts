import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a job is besides its study, for whom it is done, and how many runs are in it. */
export class OwnJobs1700000000006 implements MigrationInterface {
  readonly name = 'OwnJobs1700000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "owner" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "total" integer NOT NULL DEFAULT 0`);
    await runner.query(`ALTER TABLE "jobs" ADD COLUMN "request" text NOT NULL DEFAULT '{"kind":"study"}'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['request', 'total', 'owner'])
      await runner.query(`ALTER TABLE "jobs" DROP COLUMN "${column}"`);
  }
}
