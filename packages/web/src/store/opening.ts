import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { StoredPlan } from './api';
import type { DocumentState } from './documentSlice';
import type { LocalCopy } from './localCopy';
import { rebase } from './saver';

export type Opened = Pick<DocumentState, 'plan' | 'revision' | 'waiting' | 'past' | 'future' | 'save'> & { readonly plan: Plan };

/** A plan opened from what the server holds and what this browser kept: waiting batches that the server has not
 *  taken yet are laid on its plan.
 *  @returns the document, and how many waiting batches no longer fit */
export function openingOf(
  server: StoredPlan,
  local: LocalCopy | null,
  sheets: Sheets,
): { readonly document: Opened; readonly lost: number } {
  const { plan, revision, recent } = server;
  if (!local) return { document: { plan, revision, waiting: [], past: [], future: [], save: 'saved' }, lost: 0 };
  const taken = new Set(recent);
  const result = rebase(
    plan,
    local.waiting.filter((batch) => !taken.has(batch.id)),
    sheets,
  );
  const save = result.waiting.length > 0 ? 'saving' : 'saved';
  return {
    document: { plan: result.plan, revision, waiting: result.waiting, past: local.past, future: local.future, save },
    lost: result.lost.length,
  };
}

/** A plan opened from this browser alone, while the server is away. */
export function openingOffline(local: LocalCopy): Opened {
  return { plan: local.plan, revision: local.revision, waiting: local.waiting, past: local.past, future: local.future, save: 'offline' };
}
