import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import type { Batch, DocumentState, Opening, Step } from './documentSlice';
import type { LocalGround } from './localCopy';
import { rebase } from './saver';

/** What this browser kept of a plan. */
export interface Kept {
  readonly ground: LocalGround | null;
  /** Batches that the server had not acknowledged. */
  readonly waiting: readonly Batch[];
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

export type Opened = Opening & { readonly save: DocumentState['save'] };

/** Opens a plan from the server's state and the browser's: unsent batches are applied on top of the server's plan. After a restore or
 *  reset of the database the user chooses first.
 *  @returns the document, and the number of waiting batches that no longer apply */
export function openingOf(
  server: StoredPlan,
  { ground, waiting, past, future }: Kept,
  taken: ReadonlySet<string>,
  sheets: Sheets,
): { readonly document: Opened; readonly lost: number } {
  const { plan, revision, epoch } = server;
  const unsent = waiting.filter((batch) => !taken.has(batch.id) && !server.recent.includes(batch.id));
  if (ground && ground.epoch !== epoch && unsent.length > 0) {
    const mine = rebase(ground.plan, unsent, sheets);
    const document: Opened = {
      plan: mine.plan,
      ground: ground.plan,
      revision: ground.revision,
      epoch: ground.epoch,
      waiting: mine.waiting,
      past,
      future,
      choice: server,
      save: 'choice',
    };
    return { document, lost: mine.lost.length };
  }
  const result = rebase(plan, unsent, sheets);
  const save = result.waiting.length > 0 ? 'saving' : 'saved';
  return {
    document: { plan: result.plan, ground: plan, revision, epoch, waiting: result.waiting, past, future, save },
    lost: result.lost.length,
  };
}

/** A plan opened from this browser alone, while the server is away. */
export function openingOffline({ ground, waiting, past, future }: Kept & { readonly ground: LocalGround }, sheets: Sheets): Opened {
  const result = rebase(ground.plan, waiting, sheets);
  const { plan, revision, epoch } = ground;
  return { plan: result.plan, ground: plan as Plan, revision, epoch, waiting: result.waiting, past, future, save: 'offline' };
}
