import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Sessions of browsers, so that each of them can be revoked. */
export class CreateSessions1700000000005 implements MigrationInterface {
  readonly name = 'CreateSessions1700000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "sessions" (
        "id" text PRIMARY KEY NOT NULL,
        "key" text NOT NULL,
        "createdAt" datetime NOT NULL
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "sessions"`);
  }
}
