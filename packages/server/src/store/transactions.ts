import type { DataSource, EntitySchema, ObjectLiteral } from 'typeorm';
import type { OpenDatabase } from './database';

/** A value as SQLite keeps it. */
type Stored = string | number | null;
type Row = ObjectLiteral;
type Where<T> = { readonly [K in keyof T]?: Stored };

/** Statements for the entities, run at once on the driver's connection. */
export class Statements {
  readonly #source: DataSource;
  readonly #connection: OpenDatabase['connection'];

  constructor({ source, connection }: OpenDatabase) {
    this.#source = source;
    this.#connection = connection;
  }

  insert<T extends Row>(entity: EntitySchema<T>, row: Partial<T>): void {
    const { table, column } = this.#names(entity);
    const keys = Object.keys(row);
    const marks = keys.map(() => '?').join(', ');
    this.#connection.prepare(`INSERT INTO ${table} (${keys.map(column).join(', ')}) VALUES (${marks})`).run(...values(row));
  }

  /** @returns how many rows were changed */
  update<T extends Row>(entity: EntitySchema<T>, where: Where<T>, change: Partial<T>): number {
    const { table, column } = this.#names(entity);
    const set = Object.keys(change)
      .map((key) => `${column(key)} = ?`)
      .join(', ');
    const { sql, bound } = conditions(where, column);
    return this.#connection.prepare(`UPDATE ${table} SET ${set}${sql}`).run(...values(change), ...bound).changes;
  }

  delete<T extends Row>(entity: EntitySchema<T>, where: Where<T>): void {
    const { table, column } = this.#names(entity);
    const { sql, bound } = conditions(where, column);
    this.#connection.prepare(`DELETE FROM ${table}${sql}`).run(...bound);
  }

  /** The rows that match, in the order given.
   *  @param rest SQL after the conditions (ORDER BY, LIMIT): a constant, never user text */
  find<T extends Row>(entity: EntitySchema<T>, where: Where<T>, rest = ''): readonly T[] {
    const { table, column, columns } = this.#names(entity);
    const { sql, bound } = conditions(where, column);
    return this.#connection.prepare(`SELECT ${columns} FROM ${table}${sql} ${rest}`).all(...bound) as T[];
  }

  first<T extends Row>(entity: EntitySchema<T>, where: Where<T>, rest = ''): T | undefined {
    return this.find(entity, where, `${rest} LIMIT 1`)[0];
  }

  #names(entity: EntitySchema<Row>) {
    const { tableName, columns } = this.#source.getMetadata(entity);
    const names = new Map(columns.map((c) => [c.propertyName, c.databaseName]));
    const column = (key: string): string => {
      const name = names.get(key);
      if (name === undefined) throw new RangeError(`${tableName} has no column for ${key}`);
      return `"${name}"`;
    };
    const all = [...names].map(([key, name]) => `"${name}" AS "${key}"`).join(', ');
    return { table: `"${tableName}"`, column, columns: all };
  }
}

const values = (row: Row): Stored[] => Object.values(row) as Stored[];

function conditions(where: Row, column: (key: string) => string): { readonly sql: string; readonly bound: readonly Stored[] } {
  const entries = Object.entries(where) as [string, Stored][];
  if (entries.length === 0) return { sql: '', bound: [] };
  const terms = entries.map(([key, value]) => (value === null ? `${column(key)} IS NULL` : `${column(key)} = ?`));
  return { sql: ` WHERE ${terms.join(' AND ')}`, bound: entries.flatMap(([, value]) => (value === null ? [] : [value])) };
}

const isDiskFull = (error: unknown): boolean => {
  const { code = '' } = (error ?? {}) as { code?: string };
  return code === 'SQLITE_FULL' || code.startsWith('SQLITE_IOERR');
};

/** Ends the process: a connection in an unknown state must not acknowledge anything more. */
function stopProcess(reason: string): void {
  process.stderr.write(`${reason} The server stops; everything acknowledged is on disk. Start it again.\n`);
  process.exit(70);
}

/** The only way to write. Each transaction runs synchronously from BEGIN to COMMIT. The mapper's transactions are not used: after a
 *  failed COMMIT SQLite has already rolled back, the mapper's ROLLBACK fails, and it treats everything that follows as savepoints of a
 *  transaction that never ends. */
export class Transactions {
  readonly statements: Statements;
  readonly #connection: OpenDatabase['connection'];

  constructor(
    database: OpenDatabase,
    private readonly stop: (reason: string) => void = stopProcess,
  ) {
    this.statements = new Statements(database);
    this.#connection = database.connection;
  }

  /** Runs the work in one transaction: all of it is on the disk when this returns, or none of it.
   *  @throws what the work threw, or SQLite's error; the database is then as it was before */
  write<T>(work: (statements: Statements) => T): T {
    if (this.#connection.inTransaction) throw new Error('A transaction is open already: give its statements to what works within it.');
    try {
      return this.#attempt(work);
    } catch (error) {
      // The log may contain many versions of the same pages; a checkpoint can free space.
      if (!isDiskFull(error) || !this.#emptyLog()) throw error;
      return this.#attempt(work);
    }
  }

  #attempt<T>(work: (statements: Statements) => T): T {
    this.#connection.exec('BEGIN IMMEDIATE');
    let result: T;
    try {
      result = work(this.statements);
      this.#connection.exec('COMMIT');
    } catch (error) {
      this.#rollBack();
      throw error;
    }
    if (this.#connection.inTransaction) this.stop('A transaction is still open after its COMMIT.');
    return result;
  }

  /** @returns whether the write-ahead log could be taken into the database whole */
  #emptyLog(): boolean {
    try {
      const [result] = this.#connection.pragma('wal_checkpoint(TRUNCATE)') as { busy: number }[];
      return result?.busy === 0;
    } catch {
      return false;
    }
  }

  #rollBack(): void {
    try {
      // On a full disk SQLite rolls back automatically; another ROLLBACK would fail.
      if (this.#connection.inTransaction) this.#connection.exec('ROLLBACK');
    } catch (error) {
      this.stop(`A transaction could not be rolled back (${(error as Error).message}).`);
    }
    if (this.#connection.inTransaction) this.stop('A transaction is still open after its ROLLBACK.');
  }
}
