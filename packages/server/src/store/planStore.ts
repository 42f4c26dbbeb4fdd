import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import { thumbnail, type Thumbnail } from '@roof-chart/core/outputs/thumbnail';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit, EditProblem } from '@roof-chart/core/plan/edit';
import type { Plan, SheetRef } from '@roof-chart/core/plan/plan';
import { startPlan } from '@roof-chart/core/plan/startPlan';
import { upgradePlan } from '@roof-chart/core/plan/upgradePlan';
import { inTurn } from './inTurn';
import type { SheetSource } from './sheetShelf';
import { BatchEntity, CheckpointEntity, PlanEntity, type PlanRow } from './rows';

export interface PlanSummary {
  readonly id: string;
  readonly name: string;
  readonly board: string;
  readonly parts: number;
  readonly revision: number;
  readonly updatedAt: string;
  readonly thumbnail: Thumbnail;
}

export interface StoredPlan {
  readonly plan: Plan;
  readonly revision: number;
  /** Ids of the latest batches, newest first: a client that lost an answer learns that its batch is in. */
  readonly recent: readonly string[];
}

export interface Checkpoint {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly at: string;
}

/** Told after every acknowledged change of a plan. */
export type ChangeListener = (planId: string, revision: number) => void;

const RECENT_BATCHES = 200;

export type EditOutcome =
  | { readonly kind: 'done'; readonly revision: number }
  | { readonly kind: 'gone' }
  | { readonly kind: 'stale'; readonly now: StoredPlan }
  | { readonly kind: 'refused'; readonly at: number; readonly problem: EditProblem };

type SummaryRow = Pick<PlanRow, 'id' | 'name' | 'board' | 'parts' | 'revision' | 'updatedAt' | 'thumbnail'>;

const summary = (row: SummaryRow): PlanSummary => ({ ...row, thumbnail: JSON.parse(row.thumbnail) as Thumbnail });

const planOf = (document: string): Plan => upgradePlan(JSON.parse(document) as Plan);

/** Plans in SQLite. Every write is one transaction; nothing is ever removed from the disk. */
export class PlanStore {
  readonly #write = inTurn();
  readonly #listeners = new Set<ChangeListener>();

  constructor(
    private readonly source: DataSource,
    private readonly shelf: SheetSource,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /** The plans that are not deleted, last changed first.
   *  Plain SQL: making an entity of each of a hundred rows would take longer than finding them. */
  async list(limit: number, offset: number): Promise<{ readonly plans: readonly PlanSummary[]; readonly total: number }> {
    const rows = await this.source.query<SummaryRow[]>(
      `SELECT id, name, board, parts, revision, updated_at AS updatedAt, thumbnail FROM plans
       WHERE deleted_at IS NULL ORDER BY updated_at DESC, id LIMIT ? OFFSET ?`,
      [limit, offset],
    );
    const [count] = await this.source.query<{ total: number }[]>('SELECT count(*) AS total FROM plans WHERE deleted_at IS NULL');
    return { plans: rows.map(summary), total: count!.total };
  }

  async read(id: string): Promise<StoredPlan | undefined> {
    const row = await this.source.getRepository(PlanEntity).findOneBy({ id, deletedAt: IsNull() });
    return row ? this.#stored(this.source.manager, row) : undefined;
  }

  /** Whether a plan, a deleted one too, has this id. */
  isTaken(id: string): Promise<boolean> {
    return this.source.getRepository(PlanEntity).existsBy({ id });
  }

  /** Stores a plan that has no row yet, at revision 1. */
  async create(plan: Plan): Promise<StoredPlan> {
    const at = this.now().toISOString();
    await this.#write(() =>
      this.source
        .getRepository(PlanEntity)
        .insert({ ...this.#columns(plan), id: plan.id, revision: 1, createdAt: at, updatedAt: at, deletedAt: null }),
    );
    return { plan, revision: 1, recent: [] };
  }

  async #stored(manager: EntityManager, row: PlanRow): Promise<StoredPlan> {
    const recent = await manager.find(BatchEntity, {
      where: { planId: row.id },
      select: { batch: true },
      order: { revision: 'DESC' },
      take: RECENT_BATCHES,
    });
    return { plan: planOf(row.document), revision: row.revision, recent: recent.map((b) => b.batch) };
  }

  /** @returns stops listening */
  listen(listener: ChangeListener): () => void {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  }

  #tell(planId: string, revision: number): void {
    for (const listener of this.#listeners) listener(planId, revision);
  }

  /** A new plan on a board, with the parts that the board carries. */
  createEmpty(name: string, board: SheetRef): Promise<StoredPlan> {
    return this.create(startPlan(randomUUID(), name, board.id, this.shelf.current));
  }

  /** Applies a batch of edits to the revision the client saw: all of it, or nothing.
   *  A batch that was already taken answers again with its revision. */
  async edit(id: string, revision: number, batch: string, edits: readonly Edit[]): Promise<EditOutcome> {
    const outcome = await this.#write(() => this.source.transaction((manager) => this.#editWithin(manager, id, revision, batch, edits)));
    // After the commit only: whoever hears of a revision can read it.
    if (outcome.kind === 'done') this.#tell(id, outcome.revision);
    return outcome;
  }

  async #editWithin(manager: EntityManager, id: string, revision: number, batch: string, edits: readonly Edit[]): Promise<EditOutcome> {
    const row = await manager.findOneBy(PlanEntity, { id, deletedAt: IsNull() });
    if (!row) return { kind: 'gone' };
    const taken = await manager.findOneBy(BatchEntity, { planId: id, batch });
    if (taken) return { kind: 'done', revision: taken.revision };
    if (row.revision !== revision) return { kind: 'stale', now: await this.#stored(manager, row) };
    const result = applyEdits(planOf(row.document), edits, this.shelf.current);
    if (!result.ok) return { kind: 'refused', at: result.at, problem: result.problem };
    const next = revision + 1;
    const at = this.now().toISOString();
    await manager.update(PlanEntity, { id }, { ...this.#columns(result.plan), revision: next, updatedAt: at });
    await manager.insert(BatchEntity, {
      planId: id,
      batch,
      revision: next,
      edits: JSON.stringify(edits),
      inverse: JSON.stringify(result.inverse),
      at,
    });
    return { kind: 'done', revision: next };
  }

  /** Puts a plan aside; `restore` brings it back as it was. */
  remove(id: string): Promise<boolean> {
    return this.#mark(id, this.now().toISOString());
  }

  restore(id: string): Promise<boolean> {
    return this.#mark(id, null);
  }

  #mark(id: string, deletedAt: string | null): Promise<boolean> {
    return this.#write(async () => {
      const result = await this.source.getRepository(PlanEntity).update({ id }, { deletedAt });
      return (result.affected ?? 0) > 0;
    });
  }

  /** Keeps the present plan under a name. Undefined where there is no such plan. */
  async keep(planId: string, name: string): Promise<Checkpoint | undefined> {
    return this.#write(async () => {
      const row = await this.source.getRepository(PlanEntity).findOneBy({ id: planId, deletedAt: IsNull() });
      if (!row) return undefined;
      const checkpoint = { id: randomUUID(), planId, name, revision: row.revision, document: row.document, at: this.now().toISOString() };
      await this.source.getRepository(CheckpointEntity).insert(checkpoint);
      return { id: checkpoint.id, name, revision: row.revision, at: checkpoint.at };
    });
  }

  /** Checkpoints of a plan, newest first. */
  checkpoints(planId: string): Promise<readonly Checkpoint[]> {
    return this.source.getRepository(CheckpointEntity).find({
      where: { planId },
      select: { id: true, name: true, revision: true, at: true },
      order: { at: 'DESC', id: 'ASC' },
      take: 200,
    });
  }

  async checkpoint(planId: string, id: string): Promise<(Checkpoint & { readonly plan: Plan }) | undefined> {
    const row = await this.source.getRepository(CheckpointEntity).findOneBy({ planId, id });
    return row ? { id: row.id, name: row.name, revision: row.revision, at: row.at, plan: planOf(row.document) } : undefined;
  }

  /** The examples: put in place when absent. With `reset`, a changed one is first kept as a copy under a new id. */
  async placeExample(plan: Plan, reset: boolean): Promise<'placed' | 'kept' | 'reset'> {
    const row = await this.source.getRepository(PlanEntity).findOneBy({ id: plan.id });
    if (!row) {
      await this.create(plan);
      return 'placed';
    }
    if (!reset) return 'kept';
    if (row.revision > 1) {
      const old = planOf(row.document);
      await this.create({ ...old, id: randomUUID(), name: `${old.name.slice(0, 100)} (before reset)` });
    }
    await this.#write(() =>
      this.source.transaction(async (manager) => {
        await manager.delete(BatchEntity, { planId: plan.id });
        await manager.update(
          PlanEntity,
          { id: plan.id },
          { ...this.#columns(plan), revision: 1, updatedAt: this.now().toISOString(), deletedAt: null },
        );
      }),
    );
    return 'reset';
  }

  #columns(plan: Plan): Pick<PlanRow, 'name' | 'board' | 'parts' | 'document' | 'thumbnail'> {
    return {
      name: plan.name,
      board: plan.board.id,
      parts: plan.placements.length,
      document: JSON.stringify(plan),
      thumbnail: JSON.stringify(thumbnail(plan, this.shelf.current)),
    };
  }
}
