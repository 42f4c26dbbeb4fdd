import { lastOrThrow } from '@roof-chart/core/collections/orThrow';
import { isDeepStrictEqual } from 'node:util';
import type { HistoryEntry, HistoryStep } from '@roof-chart/api/history';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { upgradeEdits } from '@roof-chart/core/plan/upgradePlan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { checksum } from './checksum';
import { BaseEntity, BatchEntity, type BatchRow, PlanEntity } from './rows';
import { DamagedDocument, storedPlan } from './storedDocument';
import type { Statements, Transactions } from './transactions';

const HISTORY_PAGE = 100;

const entryOf = ({ revision, at, label, device, tab, edits }: BatchRow): HistoryEntry => ({
  revision,
  at,
  label,
  device,
  tab,
  kept: edits !== '',
});

/** Who changed what when, newest first.
 *  @param before only revisions below this one, for the next page */
export function historyOf(statements: Statements, planId: string, before?: number): readonly HistoryEntry[] {
  const all = statements.find(BatchEntity, { planId }, 'ORDER BY revision DESC');
  const from = before === undefined ? 0 : all.findIndex((row) => row.revision < before);
  return from < 0 ? [] : all.slice(from, from + HISTORY_PAGE).map(entryOf);
}

/** The edits of a row of the log, in today's shape. */
const editsIn = (text: string): readonly Edit[] => upgradeEdits(JSON.parse(text) as Edit[]);

/** One step with its edits and their inverse; undefined if it is no longer in the log. */
export function historyStep(statements: Statements, planId: string, revision: number): HistoryStep | undefined {
  const row = statements.first(BatchEntity, { planId, revision });
  if (!row || row.edits === '') return undefined;
  return { ...entryOf(row), edits: editsIn(row.edits), inverse: editsIn(row.inverse) };
}

export type Replay =
  | { readonly kind: 'equal'; readonly batches: number }
  | { readonly kind: 'differs' }
  /** Damage of the base, a missing or unreadable batch. */
  | { readonly kind: 'broken'; readonly reason: string }
  /** Today's sheets refuse an edit of then. */
  | { readonly kind: 'refused'; readonly revision: number };

interface LogOf {
  readonly base: Plan;
  readonly baseRevision: number;
  readonly stored: Plan;
  readonly batches: readonly BatchRow[];
}

/** @throws DamagedDocument when the document or its base is not what was written */
function readLog(statements: Statements, planId: string): LogOf | string {
  const row = statements.first(PlanEntity, { id: planId });
  const base = statements.first(BaseEntity, { planId });
  if (!row || !base) return 'no base document to replay the log on';
  const batches = statements.find(BatchEntity, { planId }, 'ORDER BY revision').filter((batch) => batch.revision > base.revision);
  if (batches.some((batch, at) => batch.revision !== base.revision + 1 + at) || base.revision + batches.length !== row.revision)
    return 'the log has a gap';
  if (batches.some((batch) => checksum(batch.edits) !== batch.digest)) return 'a logged edit does not match its checksum';
  return { base: storedPlan(planId, base), baseRevision: base.revision, stored: storedPlan(planId, row), batches };
}

/** Whether a plan's document is what its log makes of its base. */
export function replay(statements: Statements, planId: string, sheets: Sheets): Replay {
  let log;
  try {
    log = readLog(statements, planId);
  } catch (error) {
    if (error instanceof DamagedDocument) return { kind: 'broken', reason: 'a stored document does not match its checksum' };
    throw error;
  }
  if (typeof log === 'string') return { kind: 'broken', reason: log };
  let plan = log.base;
  for (const batch of log.batches) {
    const result = applyEdits(plan, editsIn(batch.edits), sheets);
    if (!result.ok) return { kind: 'refused', revision: batch.revision };
    plan = result.plan;
  }
  return isDeepStrictEqual(plain(plan), plain(log.stored)) ? { kind: 'equal', batches: log.batches.length } : { kind: 'differs' };
}

/** As it would come back from the disk: without fields that are undefined. */
const plain = (plan: Plan): unknown => JSON.parse(JSON.stringify(plan)) as unknown;

/** Edits of a plan that the log keeps whole, for taking single steps back. */
export const KEPT_EDITS = 2000;

/** Moves the base of a plan's log forward so that only the latest edits are stored in full; the history entries remain. Done only where
 *  the log replays to the stored document, before and after.
 *  @returns how many batches the base has merged */
export function compactLog(transactions: Transactions, planId: string, sheets: Sheets, kept = KEPT_EDITS): number {
  return transactions.write((statements) => {
    const log = readLog(statements, planId);
    if (typeof log === 'string' || log.batches.length <= kept) return 0;
    if (replay(statements, planId, sheets).kind !== 'equal') return 0;
    const old = log.batches.slice(0, log.batches.length - kept);
    let plan = log.base;
    for (const batch of old) {
      const result = applyEdits(plan, editsIn(batch.edits), sheets);
      if (!result.ok) return 0;
      plan = result.plan;
    }
    const document = JSON.stringify(plan);
    statements.update(BaseEntity, { planId }, { revision: lastOrThrow(old).revision, document, checksum: checksum(document) });
    for (const { id } of old) statements.update(BatchEntity, { id }, { edits: '', inverse: '' });
    const proof = replay(statements, planId, sheets);
    // Thrown inside of the transaction: nothing of it is kept.
    if (proof.kind !== 'equal')
      throw new Error(`The log of ${planId} does not replay after compaction (${proof.kind}); it is left unchanged.`);
    return old.length;
  });
}
