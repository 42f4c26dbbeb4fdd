import type { Edit } from '@roof-chart/core/plan/edit';
import { type TerminalKey, terminalKey } from '@roof-chart/core/plan/plan';
import type { Settled } from '../workers/review.worker';
import type { ReviewWorkers } from '../workers/reviewWorkers';
import { Stopped } from '../workers/restartableWorker';
import type { AppThunk } from './store';

/** Edits that trigger automatic assignment. Removing a wire is not among them, because a wire the user just removed must not return at
 *  once. */
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

/** Short enough to appear as part of the change. */
const LIMIT = 400;

/** Terminals just connected by an edit, which assignment keeps. */
const placedBy = (edits: readonly Edit[]): readonly TerminalKey[] =>
  edits.flatMap((edit) => (edit.kind === 'wire' ? [terminalKey(edit.placement, edit.terminal)] : []));

/** The edits of automatic assignment after a change; none if it is off, too late, or nothing changes. */
export const settleAfter =
  (workers: Pick<ReviewWorkers, 'search'>, edits: readonly Edit[]): AppThunk<Promise<readonly Edit[]>> =>
  async (_, getState) => {
    const { session, document } = getState();
    const { plan } = document;
    if (!session.auto || !plan || !edits.some((edit) => SETTLED_AFTER.has(edit.kind))) return [];
    const settled = await workers
      .search<Settled | undefined>((reviewer) => reviewer.settle(plan, LIMIT, { keep: placedBy(edits) }))
      .catch((error: unknown) => {
        if (error instanceof Stopped) return undefined;
        throw error;
      });
    // The plan has changed meanwhile; the next change triggers it again.
    return getState().document.plan === plan ? (settled?.edits ?? []) : [];
  };
