import { randomUUID } from 'node:crypto';
import type { Checkpoint } from '@roof-chart/api/checkpoints';
import type { Client, SentBatch } from '@roof-chart/api/editBatches';
import type { PlanList, PlanSummary } from '@roof-chart/api/planList';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import { thumbnail, type Thumbnail } from '@roof-chart/core/outputs/thumbnail';
import type { PlanState } from '@roof-chart/core/outputs/planState';
import type { Plan, SheetRef } from '@roof-chart/core/plan/plan';
import { startPlan } from '@roof-chart/core/plan/startPlan';
import { checksum } from './checksum';
import type { OpenDatabase } from './database';
import { applyBatches, type RefusedEdit, type SeenRevision } from './editBatches';
import { newEpoch, readEpoch } from './epoch';
import type { SheetSource } from './sheetRepository';
import { BaseEntity, BatchEntity, CheckpointEntity, PlanEntity, type PlanRow, SettingEntity } from './rows';
import { PlanStates } from './planStates';
import { storedPlan } from './storedDocument';
import { type Statements, Transactions } from './transactions';

/** Called after every acknowledged change of a plan with its revision, or null once deleted. */
export type ChangeListener = (planId: string, revision: number | null) => void;

const RECENT_BATCHES = 200;
const CHECKPOINTS_LISTED = 200;

export type EditOutcome =
  | { readonly kind: 'done'; readonly revision: number }
  | { readonly kind: 'gone' }
  | { readonly kind: 'stale'; readonly now: StoredPlan }
  | { readonly kind: 'clash'; readonly at: number }
  | { readonly kind: 'refused'; readonly at: number; readonly revision: number; readonly problem: RefusedEdit };

type SummaryRow = Pick<PlanRow, 'id' | 'name' | 'board' | 'parts' | 'revision' | 'updatedAt' | 'thumbnail' | 'archivedAt'>;

const EMPTY_THUMBNAIL: Thumbnail = { columns: 0, rows: [], clashes: [] };

/** The thumbnail of a row; an empty one where it cannot be read, so that one bad row never hides the others. */
function readThumbnail(text: string): Thumbnail {
  try {
    const read = JSON.parse(text) as Partial<Thumbnail> | null;
    return read && Array.isArray(read.rows) && Array.isArray(read.clashes) ? (read as Thumbnail) : EMPTY_THUMBNAIL;
  } catch {
    return EMPTY_THUMBNAIL;
  }
}

const summary = ({ archivedAt, ...row }: SummaryRow, state: PlanState | undefined): PlanSummary => ({
  ...row,
  thumbnail: readThumbnail(row.thumbnail),
  ...(archivedAt === null ? {} : { archived: true as const }),
  ...(state ? { state } : {}),
});

/** Plans in SQLite. Every write is one transaction; nothing is ever removed from the disk. */
export class PlanStore {
  readonly transactions: Transactions;
  readonly #statements: Statements;
  readonly #states = new PlanStates();
  readonly #listeners = new Set<ChangeListener>();
  #epoch: string;

  constructor(
    private readonly database: OpenDatabase,
    private readonly shelf: SheetSource,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.transactions = new Transactions(database);
    this.#statements = this.transactions.statements;
    this.#epoch = readEpoch(database.connection);
  }

  /** The life of this database. */
  get epoch(): string {
    return this.#epoch;
  }

  /** The time of the server's clock, as it is stored. */
  time(): string {
    return this.now().toISOString();
  }

  /** The plans that are not deleted, last changed first, archived ones after all others.
   *  Plain SQL: making an entity of each of a hundred rows would take longer than finding them. */
  async list(limit: number, offset: number): Promise<PlanList> {
    const { source } = this.database;
    const rows = await source.query<SummaryRow[]>(
      `SELECT id, name, board, parts, revision, updated_at AS updatedAt, thumbnail, archived_at AS archivedAt FROM plans
       WHERE deleted_at IS NULL ORDER BY archived_at IS NOT NULL, updated_at DESC, id LIMIT ? OFFSET ?`,
      [limit, offset],
    );
    const [count] = await source.query<{ total: number }[]>('SELECT count(*) AS total FROM plans WHERE deleted_at IS NULL');
    const states = await this.#states.of(rows, this.shelf.current, (id) => this.#readable(id));
    return { plans: rows.map((row) => summary(row, states.get(row.id))), total: count?.total ?? 0 };
  }

  /** A plan for its state in the list: a damaged one has none, and is reported when it is opened. */
  #readable(id: string): Plan | undefined {
    try {
      return this.read(id)?.plan;
    } catch {
      return undefined;
    }
  }

  /** @throws DamagedDocument when the stored document is not what was written */
  read(id: string): StoredPlan | undefined {
    const row = this.#statements.first(PlanEntity, { id, deletedAt: null });
    return row && this.#stored(row);
  }

  /** The revision of a plan without opening it. */
  revisionOf(id: string): number | undefined {
    return this.#statements.first(PlanEntity, { id, deletedAt: null })?.revision;
  }

  /** Whether a plan, a deleted one too, has this id. */
  isTaken(id: string): boolean {
    return this.#statements.first(PlanEntity, { id }) !== undefined;
  }

  /** Stores a plan that has no row yet, at revision 1. */
  create(plan: Plan): StoredPlan {
    return this.transactions.write((statements) => this.createWithin(statements, plan));
  }

  /** The same as a part of a larger transaction. */
  createWithin(statements: Statements, plan: Plan): StoredPlan {
    const at = this.time();
    const columns = this.#columns(plan);
    statements.insert(PlanEntity, {
      ...columns,
      id: plan.id,
      revision: 1,
      createdAt: at,
      updatedAt: at,
      deletedAt: null,
      archivedAt: null,
    });
    statements.insert(BaseEntity, { planId: plan.id, revision: 1, document: columns.document, checksum: columns.checksum });
    return { plan, revision: 1, epoch: this.#epoch, recent: [] };
  }

  #stored(row: PlanRow): StoredPlan {
    const recent = this.#statements.find(BatchEntity, { planId: row.id }, `ORDER BY revision DESC LIMIT ${RECENT_BATCHES}`);
    return { plan: storedPlan(row.id, row), revision: row.revision, epoch: this.#epoch, recent: recent.map((b) => b.batch) };
  }

  /** @returns stops listening */
  listen(listener: ChangeListener): () => void {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  }

  #tell(planId: string, revision: number | null): void {
    for (const listener of this.#listeners) listener(planId, revision);
  }

  /** A new plan on a board, with the parts that the board carries. */
  createEmpty(name: string, board: SheetRef): StoredPlan {
    return this.create(startPlan(randomUUID(), name, board.id, this.shelf.current));
  }

  /** Applies batches of edits to the revision the client saw. Each is there whole or not at all; where one is refused,
   *  those before it are kept. A batch that was already taken is not done again. */
  edit(id: string, seen: SeenRevision, batches: readonly SentBatch[], client?: Client): EditOutcome {
    const outcome = this.transactions.write((statements): EditOutcome => {
      const row = statements.first(PlanEntity, { id, deletedAt: null });
      if (!row) return { kind: 'gone' };
      if (seen.epoch !== this.#epoch) return { kind: 'stale', now: this.#stored(row) };
      return this.#editWithin(statements, row, seen.revision, batches, client);
    });
    // Only after the commit, so that an announced revision can be read.
    if (outcome.kind === 'done' || outcome.kind === 'refused') this.#tell(id, outcome.revision);
    return outcome;
  }

  #editWithin(statements: Statements, row: PlanRow, seen: number, batches: readonly SentBatch[], client?: Client): EditOutcome {
    const at = this.time();
    const plan = storedPlan(row.id, row);
    const ground = { statements, planId: row.id, plan, revision: row.revision, sheets: this.shelf.current, at };
    const outcome = applyBatches(ground, seen, batches, client);
    if (outcome.kind === 'stale') return { kind: 'stale', now: this.#stored(row) };
    if (outcome.kind === 'clash') return outcome;
    if (outcome.plan !== plan)
      statements.update(PlanEntity, { id: row.id }, { ...this.#columns(outcome.plan), revision: outcome.revision, updatedAt: at });
    if (outcome.kind === 'done') return { kind: 'done', revision: outcome.revision };
    return { kind: 'refused', at: outcome.at, revision: outcome.revision, problem: outcome.problem };
  }

  /** Which of these batches the server has. */
  taken(planId: string, batches: readonly string[]): readonly string[] {
    return batches.filter((batch) => this.#statements.first(BatchEntity, { planId, batch }) !== undefined);
  }

  /** Puts a plan aside; `restore` brings it back as it was. */
  remove(id: string): boolean {
    const done = this.#mark(id, this.time());
    if (done) this.#tell(id, null);
    return done;
  }

  restore(id: string): boolean {
    const done = this.#mark(id, null);
    const revision = this.revisionOf(id);
    if (done && revision !== undefined) this.#tell(id, revision);
    return done;
  }

  /** Takes a plan out of the list of those at work, or back into it. @returns false where there is none */
  archive(id: string, isArchived: boolean): boolean {
    const archivedAt = isArchived ? this.time() : null;
    return this.transactions.write((statements) => statements.update(PlanEntity, { id, deletedAt: null }, { archivedAt }) > 0);
  }

  #mark(id: string, deletedAt: string | null): boolean {
    return this.transactions.write((statements) => statements.update(PlanEntity, { id }, { deletedAt }) > 0);
  }

  /** Keeps the present plan under a name. Undefined where there is no such plan. */
  keep(planId: string, name: string): Checkpoint | undefined {
    return this.transactions.write((statements) => {
      const row = statements.first(PlanEntity, { id: planId, deletedAt: null });
      if (!row) return undefined;
      storedPlan(planId, row);
      const kept = { id: randomUUID(), name, revision: row.revision, at: this.time() };
      statements.insert(CheckpointEntity, { ...kept, planId, document: row.document, checksum: row.checksum });
      return kept;
    });
  }

  /** Checkpoints of a plan, newest first. */
  checkpoints(planId: string): readonly Checkpoint[] {
    const rows = this.#statements.find(CheckpointEntity, { planId }, `ORDER BY at DESC, id LIMIT ${CHECKPOINTS_LISTED}`);
    return rows.map(({ id, name, revision, at }) => ({ id, name, revision, at }));
  }

  /** @throws DamagedDocument when the stored document is not what was written */
  checkpoint(planId: string, id: string): (Checkpoint & { readonly plan: Plan }) | undefined {
    const row = this.#statements.first(CheckpointEntity, { planId, id });
    return row && { id: row.id, name: row.name, revision: row.revision, at: row.at, plan: storedPlan(planId, row) };
  }

  /** Installs missing examples. With `reset`, a changed one is first copied under a new ID, and the database starts a new epoch, which
   *  open tabs detect. */
  placeExample(plan: Plan, reset: boolean): 'placed' | 'kept' | 'reset' {
    const row = this.#statements.first(PlanEntity, { id: plan.id });
    if (!row) {
      this.create(plan);
      return 'placed';
    }
    if (!reset) return 'kept';
    const epoch = newEpoch();
    this.transactions.write((statements) => {
      if (row.revision > 1) {
        const old = storedPlan(row.id, row);
        this.createWithin(statements, { ...old, id: randomUUID(), name: `${old.name.slice(0, 100)} (before reset)` });
      }
      const columns = this.#columns(plan);
      statements.delete(BatchEntity, { planId: plan.id });
      statements.update(PlanEntity, { id: plan.id }, { ...columns, revision: 1, updatedAt: this.time(), deletedAt: null });
      const { document, checksum: sum } = columns;
      statements.update(BaseEntity, { planId: plan.id }, { revision: 1, document, checksum: sum });
      statements.update(SettingEntity, { key: 'epoch' }, { value: epoch });
    });
    this.#epoch = epoch;
    return 'reset';
  }

  #columns(plan: Plan): Pick<PlanRow, 'name' | 'board' | 'parts' | 'document' | 'checksum' | 'thumbnail'> {
    const document = JSON.stringify(plan);
    return {
      name: plan.name,
      board: plan.board.id,
      parts: plan.placements.length,
      document,
      checksum: checksum(document),
      thumbnail: JSON.stringify(thumbnail(plan, this.shelf.current)),
    };
  }
}
