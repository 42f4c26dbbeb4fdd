import { isDeepStrictEqual } from 'node:util';
import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import type { KeptSheet } from '@roof-chart/api/keptSheets';
import type { SheetUse } from '@roof-chart/api/sheetUses';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { upgradeSheet } from '@roof-chart/core/sheets/upgradeSheet';
import { checksum } from './checksum';
import type { OpenDatabase } from './database';
import { BaseEntity, CheckpointEntity, PlanEntity, SheetEntity } from './rows';
import { type Statements, Transactions } from './transactions';

type Sheet = BoardSheet | PartSheet;

/** The sheets as they are now: own ones come and go while the server runs. */
export interface SheetSource {
  readonly current: Sheets;
}

export type KeepOutcome =
  { readonly kind: 'kept'; readonly sheets: readonly KeptSheet[] } | { readonly kind: 'taken'; readonly at: number; readonly id: string };

export type RemoveOutcome = { readonly kind: 'removed' | 'gone' } | { readonly kind: 'used'; readonly by: readonly SheetUse[] };

/** Whether two sheets say the same, in whatever order. */
const sayTheSame = (a: Sheet, b: Sheet): boolean => isDeepStrictEqual({ ...a, version: 0 }, { ...b, version: 0 });

/** Library sheets and own sheets in every version, because a plan keeps the version it was made with. */
export class SheetRepository implements SheetSource {
  readonly #transactions: Transactions;
  #own: readonly Sheet[] = [];
  #unreadable: readonly string[] = [];
  #current: Sheets;

  constructor(
    database: OpenDatabase,
    private readonly shipped: readonly Sheet[],
    private readonly now: () => Date = () => new Date(),
  ) {
    this.#transactions = new Transactions(database);
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

  /** Keys of own sheets whose stored document cannot be read; they stay on the disk. */
  get unreadable(): readonly string[] {
    return this.#unreadable;
  }

  /** Reads the own sheets. A shipped sheet that came later under the same id wins; the own one stays on the disk. */
  load(): void {
    const rows = this.#transactions.statements.find(SheetEntity, { removedAt: null }, 'ORDER BY id, version');
    const shipped = new Set(this.shipped.map((sheet) => sheet.id));
    const read = rows.map((row) => ({ key: row.key, sheet: readStored(row.document) }));
    this.#unreadable = read.flatMap(({ key, sheet }) => (sheet ? [] : [key]));
    this.#own = read.flatMap(({ sheet }) => (sheet && !shipped.has(sheet.id) ? [sheet] : []));
    this.#current = indexSheets(this.list);
  }

  /** Keeps sheets, all or none: each as the next version of its id, unless nothing in it is new. */
  keep(sheets: readonly Sheet[]): KeepOutcome {
    const outcome = this.#transactions.write((statements) => this.keepWithin(statements, sheets));
    if (outcome.kind === 'kept') this.load();
    return outcome;
  }

  /** The same as a part of a larger transaction; `load` afterwards. */
  keepWithin(statements: Statements, sheets: readonly Sheet[]): KeepOutcome {
    const at = sheets.findIndex((sheet) => this.ships(sheet.id) || this.#otherKind(sheet));
    if (at >= 0) return { kind: 'taken', at, id: atOrThrow(sheets, at).id };
    return { kind: 'kept', sheets: sheets.map((sheet) => this.#keepOne(statements, sheet)) };
  }

  #keepOne(statements: Statements, sheet: Sheet): KeptSheet {
    // Removed versions count, too: a number is never given to other facts.
    const last = statements.first(SheetEntity, { id: sheet.id }, 'ORDER BY version DESC');
    const lastSheet = last && readStored(last.document);
    if (last?.removedAt === null && lastSheet && sayTheSame(lastSheet, JSON.parse(JSON.stringify(sheet)) as Sheet))
      return { id: sheet.id, version: last.version, how: 'same' };
    const version = (last?.version ?? 0) + 1;
    const document = JSON.stringify({ ...sheet, version });
    statements.insert(SheetEntity, {
      key: `${sheet.id}@${version}`,
      id: sheet.id,
      version,
      document,
      checksum: checksum(document),
      at: this.now().toISOString(),
      removedAt: null,
    });
    return { id: sheet.id, version, how: last?.removedAt === null ? 'changed' : 'new' };
  }

  /** A board cannot become a part with the same ID, because plans use it as a board. */
  #otherKind(sheet: Sheet): boolean {
    return this.#own.some((own) => own.id === sheet.id && own.kind !== sheet.kind);
  }

  /** Plans that use a sheet, by name: deleted ones, too, and those that only a saved version of a plan uses. */
  uses(id: string): readonly SheetUse[] {
    const { statements } = this.#transactions;
    const plans = statements.find(PlanEntity, {}, 'ORDER BY name');
    const names = new Map(plans.map((row) => [row.id, row.name]));
    const kept = statements.find(CheckpointEntity, {}, 'ORDER BY at DESC');
    // Single steps are reverted relative to the base of a log.
    const bases = statements.find(BaseEntity, {});
    const found = [
      ...plans.flatMap((row) => useIn(row.document, id, row.id, row.name, row.deletedAt === null ? 'plan' : 'deleted plan')),
      ...kept.flatMap((row) => useIn(row.document, id, row.planId, `${names.get(row.planId) ?? row.planId}: ${row.name}`, 'saved version')),
      ...bases.flatMap((row) => useIn(row.document, id, row.planId, names.get(row.planId) ?? row.planId, 'saved version')),
    ];
    // One line per plan: its current use matters more than its saved versions.
    return [...new Map(found.toReversed().map((use) => [use.plan, use])).values()].toReversed();
  }

  /** Removes an own sheet with all its versions from the list; one that a plan uses stays. */
  remove(id: string): RemoveOutcome {
    if (!this.own.includes(id)) return { kind: 'gone' };
    const by = this.uses(id);
    if (by.length > 0) return { kind: 'used', by };
    this.#transactions.write((statements) => statements.update(SheetEntity, { id }, { removedAt: this.now().toISOString() }));
    this.load();
    return { kind: 'removed' };
  }
}

/** The sheet of a stored document; undefined where it cannot be read: one bad row never hides the others. */
function readStored(document: string): Sheet | undefined {
  try {
    const sheet = upgradeSheet(JSON.parse(document)) as Sheet | null;
    return sheet && (sheet.kind === 'board' || sheet.kind === 'part') ? sheet : undefined;
  } catch {
    return undefined;
  }
}

function useIn(document: string, sheet: string, plan: string, name: string, where: SheetUse['where']): readonly SheetUse[] {
  if (!document.includes(`"id":"${sheet}"`)) return [];
  try {
    const { board, placements } = JSON.parse(document) as Plan;
    const refs = [board, ...placements.map((p) => p.sheet)].filter((ref) => ref.id === sheet);
    return refs.length > 0 ? [{ plan, name, versions: [...new Set(refs.map((ref) => ref.version))], where }] : [];
  } catch {
    // A document that cannot be read may use it.
    return [{ plan, name, versions: [], where }];
  }
}
