import type { Edit } from '@roof-chart/core/plan/edit';
import { type Plan, type TerminalKey, terminalKey } from '@roof-chart/core/plan/plan';
import type { Settled } from '../review/review.worker';
import type { ReviewFeed } from '../review/reviewFeed';
import { Stopped } from '../review/workerSeat';
import type { Store } from './store';

/** Edits after which settling has something to do. Taking a wire off, or a tick, is not among them: what somebody has just
 *  taken off must not come back at once. */
const SETTLED_AFTER: ReadonlySet<Edit['kind']> = new Set([
  'add-placement',
  'remove-placement',
  'wire',
  'strap',
  'wish',
  'together',
  'radio',
  'switch-board',
  'take-sheet',
]);

/** Short enough to be felt as part of the change. */
const LIMIT = 400;

/** What an edit has just put in place, and settling therefore keeps. */
const placedBy = (edits: readonly Edit[]): readonly TerminalKey[] =>
  edits.flatMap((edit) => (edit.kind === 'wire' ? [terminalKey(edit.placement, edit.terminal)] : []));

/** The edits that settle a plan after a change, where settling is on; none where they come too late or there is nothing to do. */
export async function settleAfter(store: Store, feed: ReviewFeed, edits: readonly Edit[]): Promise<readonly Edit[]> {
  const { session, document } = store.getState();
  const plan: Plan | null = document.plan;
  if (!session.auto || !plan || !edits.some((edit) => SETTLED_AFTER.has(edit.kind))) return [];
  const settled = await feed
    .search<Settled | undefined>((reviewer) => reviewer.settle(plan, LIMIT, { keep: placedBy(edits) }))
    .catch((error: unknown) => {
      if (error instanceof Stopped) return undefined;
      throw error;
    });
  // The plan has moved on: the next change asks anew.
  return store.getState().document.plan === plan ? (settled?.edits ?? []) : [];
}
