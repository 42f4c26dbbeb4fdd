import { type DataSource, IsNull, Like } from 'typeorm';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { inTurn } from './inTurn';
import { PlanEntity, SheetEntity } from './rows';

type Sheet = BoardSheet | PartSheet;

/** The sheets as they are now: own ones come and go while the server runs. */
export interface SheetSource {
  readonly current: Sheets;
}

export interface KeptSheet {
  readonly id: string;
  readonly version: number;
  /** `same`: what came in is what was there. */
  readonly how: 'new' | 'changed' | 'same';
}

export type KeepOutcome =
  { readonly kind: 'kept'; readonly sheets: readonly KeptSheet[] } | { readonly kind: 'taken'; readonly at: number; readonly id: string };

export interface SheetUse {
  readonly plan: string;
  readonly name: string;
  /** Versions of the sheet that the plan was made with. */
  readonly versions: readonly number[];
}

export type RemoveOutcome = { readonly kind: 'removed' | 'gone' } | { readonly kind: 'used'; readonly by: readonly SheetUse[] };

const facts = (sheet: Sheet): string => JSON.stringify({ ...sheet, version: 0 });

/** Shipped sheets and the builder's own, which are kept in every version: a plan keeps the one it was made with. */
export class SheetShelf implements SheetSource {
  readonly #write = inTurn();
  #own: readonly Sheet[] = [];
  #current: Sheets;

  constructor(
    private readonly source: DataSource,
    private readonly shipped: readonly Sheet[],
    private readonly now: () => Date = () => new Date(),
  ) {
    this.#current = indexSheets(shipped);
  }

  get current(): Sheets {
    return this.#current;
  }

  /** Every sheet in every version, shipped ones first. */
  get list(): readonly Sheet[] {
    return [...this.shipped, ...this.#own];
  }

  ships(id: string): boolean {
    return this.shipped.some((sheet) => sheet.id === id);
  }

  /** Ids of own sheets. */
  get own(): readonly string[] {
    return [...new Set(this.#own.map((sheet) => sheet.id))];
  }

  /** Reads the own sheets. A shipped sheet that came later under the same id wins; the own one stays on the disk. */
  async load(): Promise<void> {
    const rows = await this.source.getRepository(SheetEntity).find({ order: { id: 'ASC', version: 'ASC' } });
    const shipped = new Set(this.shipped.map((sheet) => sheet.id));
    this.#own = rows.map((row) => JSON.parse(row.document) as Sheet).filter((sheet) => !shipped.has(sheet.id));
    this.#current = indexSheets(this.list);
  }

  /** Keeps sheets, all or none: each as the next version of its id, unless nothing in it is new. */
  keep(sheets: readonly Sheet[]): Promise<KeepOutcome> {
    return this.#write(async () => {
      const at = sheets.findIndex((sheet) => this.ships(sheet.id) || this.#otherKind(sheet));
      if (at >= 0) return { kind: 'taken', at, id: sheets[at]!.id };
      const kept: KeptSheet[] = [];
      await this.source.transaction(async (manager) => {
        for (const sheet of sheets) {
          const last = await manager.findOne(SheetEntity, { where: { id: sheet.id }, order: { version: 'DESC' } });
          if (last && facts(JSON.parse(last.document) as Sheet) === facts(sheet)) {
            kept.push({ id: sheet.id, version: last.version, how: 'same' });
            continue;
          }
          const version = (last?.version ?? 0) + 1;
          await manager.insert(SheetEntity, {
            key: `${sheet.id}@${version}`,
            id: sheet.id,
            version,
            document: JSON.stringify({ ...sheet, version }),
            at: this.now().toISOString(),
          });
          kept.push({ id: sheet.id, version, how: last ? 'changed' : 'new' });
        }
      });
      await this.load();
      return { kind: 'kept', sheets: kept };
    });
  }

  /** A board cannot become a part under the same id: plans would stand on a display. */
  #otherKind(sheet: Sheet): boolean {
    return this.#own.some((own) => own.id === sheet.id && own.kind !== sheet.kind);
  }

  /** Plans that use a sheet, by name. */
  async uses(id: string): Promise<readonly SheetUse[]> {
    const rows = await this.source.getRepository(PlanEntity).find({
      where: { deletedAt: IsNull(), document: Like(`%"id":"${id}"%`) },
      select: { id: true, name: true, document: true },
      order: { name: 'ASC' },
    });
    return rows.flatMap((row) => {
      const plan = JSON.parse(row.document) as Plan;
      const refs = [plan.board, ...plan.placements.map((p) => p.sheet)].filter((ref) => ref.id === id);
      return refs.length > 0 ? [{ plan: row.id, name: row.name, versions: [...new Set(refs.map((ref) => ref.version))] }] : [];
    });
  }

  /** Removes an own sheet with all its versions; one that a plan uses stays. */
  remove(id: string): Promise<RemoveOutcome> {
    return this.#write(async () => {
      if (!this.own.includes(id)) return { kind: 'gone' };
      const by = await this.uses(id);
      if (by.length > 0) return { kind: 'used', by };
      await this.source.getRepository(SheetEntity).delete({ id });
      await this.load();
      return { kind: 'removed' };
    });
  }
}
