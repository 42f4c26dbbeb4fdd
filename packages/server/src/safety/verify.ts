import type Database from 'better-sqlite3';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { checksum } from '../store/checksum';
import { openDatabase, type OpenDatabase } from '../store/database';
import { replay } from '../store/planLog';
import { BaseEntity, CheckpointEntity, PlanEntity, SheetEntity } from '../store/rows';
import { SheetRepository } from '../store/sheetRepository';
import { Transactions } from '../store/transactions';
import { databaseState } from './databaseState';

/** What looking through a whole database found. */
export interface Verification {
  readonly plans: number;
  readonly versions: number;
  readonly sheets: number;
  /** Plans whose log was replayed to the stored document. */
  readonly replayed: number;
  /** Damage, one sentence each. */
  readonly faults: readonly string[];
  /** What could not be shown and is no damage. */
  readonly remarks: readonly string[];
}

const schemaOf = (connection: Database.Database): readonly string[] =>
  connection
    .prepare(
      "SELECT type || ' ' || name || ': ' || coalesce(sql, '') FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' ORDER BY type, name",
    )
    .pluck()
    .all() as string[];

/** Tables and indexes that are not as this version makes them. */
async function schemaFaults(connection: Database.Database): Promise<readonly string[]> {
  const fresh = await openDatabase(':memory:');
  const wanted = new Set(schemaOf(fresh.connection));
  await fresh.source.destroy();
  const here = new Set(schemaOf(connection));
  return [
    ...[...wanted].filter((line) => !here.has(line)).map((line) => `Schema: ${line.split(':')[0]} is missing or altered.`),
    ...[...here].filter((line) => !wanted.has(line)).map((line) => `Schema: ${line.split(':')[0]} is unknown to this version.`),
  ];
}

/** Integrity, schema, the checksum of every document, and every plan against the replay of its log.
 *  @param database of today's schema; nothing in it is changed */
export async function verifyDatabase(
  file: string,
  database: OpenDatabase,
  shipped: readonly (BoardSheet | PartSheet)[],
): Promise<Verification> {
  const state = databaseState(file, true);
  const faults = state.kind === 'sound' ? [] : [`The database is ${state.kind}${'reason' in state ? `: ${state.reason}` : ''}.`];
  faults.push(...(await schemaFaults(database.connection)));
  const { statements } = new Transactions(database);
  const shelf = new SheetRepository(database, shipped);
  shelf.load();
  const plans = statements.find(PlanEntity, {}, 'ORDER BY id');
  const versions = statements.find(CheckpointEntity, {}, 'ORDER BY id');
  const sheets = statements.find(SheetEntity, {}, 'ORDER BY key');
  const bases = statements.find(BaseEntity, {});
  const documents = [
    ...plans.map((row) => ({ ...row, what: `plan ${row.id}` })),
    ...versions.map((row) => ({ ...row, what: `saved version ${row.id} of plan ${row.planId}` })),
    ...sheets.map((row) => ({ ...row, what: `sheet ${row.key}` })),
    ...bases.map((row) => ({ ...row, what: `base of plan ${row.planId}` })),
  ];
  for (const { what, document, checksum: sum } of documents)
    if (checksum(document) !== sum) faults.push(`The document of ${what} does not match its checksum.`);
  const remarks: string[] = [];
  let replayed = 0;
  for (const { id } of plans) {
    const result = replay(statements, id, shelf.current);
    if (result.kind === 'equal') replayed += 1;
    else if (result.kind === 'refused')
      remarks.push(`Plan ${id}: the log cannot be replayed; edit ${result.revision} does not apply with the current sheets.`);
    else faults.push(`Plan ${id}: ${result.kind === 'broken' ? result.reason : 'its document differs from the replay of its log'}.`);
  }
  return { plans: plans.length, versions: versions.length, sheets: sheets.length, replayed, faults, remarks };
}
