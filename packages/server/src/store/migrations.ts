import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Migrations are never edited after release; a new one is added at the end. */
class CreatePlans1795564800000 implements MigrationInterface {
  name = 'CreatePlans1795564800000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE plans (
        id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL, board TEXT NOT NULL, parts INTEGER NOT NULL,
        revision INTEGER NOT NULL, document TEXT NOT NULL, thumbnail TEXT NOT NULL,
        created_at TEXT NOT NULL, updated_at TEXT NOT NULL, deleted_at TEXT)`,
    );
    await runner.query('CREATE INDEX plans_recent ON plans (deleted_at, updated_at DESC)');
    await runner.query(
      `CREATE TABLE batches (
        id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, plan_id TEXT NOT NULL REFERENCES plans (id),
        batch TEXT NOT NULL, revision INTEGER NOT NULL, edits TEXT NOT NULL, inverse TEXT NOT NULL, at TEXT NOT NULL,
        UNIQUE (plan_id, batch), UNIQUE (plan_id, revision))`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE batches');
    await runner.query('DROP INDEX plans_recent');
    await runner.query('DROP TABLE plans');
  }
}

class CreateCheckpoints1795568400000 implements MigrationInterface {
  name = 'CreateCheckpoints1795568400000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE checkpoints (
        id TEXT PRIMARY KEY NOT NULL, plan_id TEXT NOT NULL REFERENCES plans (id), name TEXT NOT NULL,
        revision INTEGER NOT NULL, document TEXT NOT NULL, at TEXT NOT NULL)`,
    );
    await runner.query('CREATE INDEX checkpoints_of_plan ON checkpoints (plan_id, at DESC)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX checkpoints_of_plan');
    await runner.query('DROP TABLE checkpoints');
  }
}

class CreateSheets1795608000000 implements MigrationInterface {
  name = 'CreateSheets1795608000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE sheets (
        key TEXT PRIMARY KEY NOT NULL, id TEXT NOT NULL, version INTEGER NOT NULL, document TEXT NOT NULL, at TEXT NOT NULL,
        UNIQUE (id, version))`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE sheets');
  }
}

export const MIGRATIONS = [CreatePlans1795564800000, CreateCheckpoints1795568400000, CreateSheets1795608000000];
