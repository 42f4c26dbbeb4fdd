import type { MigrationInterface, QueryRunner } from 'typeorm';
import { checksum } from './checksum';
import { newEpoch } from './epoch';

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

/** Checksums of documents, the base that a plan's log is replayed on, who made an edit, removed sheets, and the epoch. */
class AddChecksumsBasesAndEpoch1795870800000 implements MigrationInterface {
  name = 'AddChecksumsBasesAndEpoch1795870800000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('CREATE TABLE settings (key TEXT PRIMARY KEY NOT NULL, value TEXT NOT NULL)');
    await runner.query("INSERT INTO settings (key, value) VALUES ('epoch', ?)", [newEpoch()]);
    for (const table of ['plans', 'checkpoints', 'sheets']) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN checksum TEXT NOT NULL DEFAULT ''`);
      const rows = (await runner.query(`SELECT rowid, document FROM ${table}`)) as { rowid: number; document: string }[];
      for (const row of rows) await runner.query(`UPDATE ${table} SET checksum = ? WHERE rowid = ?`, [checksum(row.document), row.rowid]);
    }
    await runner.query(
      `CREATE TABLE bases (
        plan_id TEXT PRIMARY KEY NOT NULL REFERENCES plans (id), revision INTEGER NOT NULL, document TEXT NOT NULL, checksum TEXT NOT NULL)`,
    );
    // The plan as it was when its log began is not known any more: the log begins anew with today's.
    await runner.query('INSERT INTO bases (plan_id, revision, document, checksum) SELECT id, revision, document, checksum FROM plans');
    await runner.query('ALTER TABLE sheets ADD COLUMN removed_at TEXT');
    await runner.query("ALTER TABLE batches ADD COLUMN digest TEXT NOT NULL DEFAULT ''");
    for (const column of ['label', 'device', 'tab']) await runner.query(`ALTER TABLE batches ADD COLUMN ${column} TEXT`);
    const batches = (await runner.query('SELECT id, edits FROM batches')) as { id: number; edits: string }[];
    for (const row of batches) await runner.query('UPDATE batches SET digest = ? WHERE id = ?', [checksum(row.edits), row.id]);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['digest', 'label', 'device', 'tab']) await runner.query(`ALTER TABLE batches DROP COLUMN ${column}`);
    await runner.query('ALTER TABLE sheets DROP COLUMN removed_at');
    await runner.query('DROP TABLE bases');
    for (const table of ['plans', 'checkpoints', 'sheets']) await runner.query(`ALTER TABLE ${table} DROP COLUMN checksum`);
    await runner.query('DROP TABLE settings');
  }
}

/** Plans that are out of the way without being deleted. */
class AddArchivedPlans1796040000000 implements MigrationInterface {
  name = 'AddArchivedPlans1796040000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE plans ADD COLUMN archived_at TEXT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE plans DROP COLUMN archived_at');
  }
}

export const MIGRATIONS = [
  CreatePlans1795564800000,
  CreateCheckpoints1795568400000,
  CreateSheets1795608000000,
  AddChecksumsBasesAndEpoch1795870800000,
  AddArchivedPlans1796040000000,
];
