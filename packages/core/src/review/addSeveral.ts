import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { firstFree } from '../plan/newPlacement';
import type { Plan } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { MOST_AT_ONCE } from '../sheets/countedQuery';
import type { Sheets } from '../sheets/sheetIndex';
import { additionVerdict } from './addition';
import { completeAddition, completeVerdict } from './additionNeeds';

/** What several parts of one kind come to. */
export interface Several {
  /** All of them in one batch. */
  readonly edits: readonly Edit[];
  readonly plan: Plan;
  readonly count: number;
  /** How many of them fit without an error or warning, on their own or with what they need. */
  readonly fit: number;
}

/** Several parts of one kind, one after another, each wired and with what it needs, named by number: "Red LED 1" to "Red LED 8". A plan that is
 *  full takes fewer.
 *  @param count from 1; at most `MOST_AT_ONCE` are added */
export function addSeveral(plan: Plan, sheets: Sheets, part: PartSheet, count: number): Several {
  const edits: Edit[] = [];
  let [now, added, fit] = [plan, 0, 0];
  while (added < Math.min(count, MOST_AT_ONCE)) {
    const addition = completeAddition(now, sheets, part);
    if (!addition) break;
    const complete = completeVerdict(addition) === 'with' ? addition.needs?.edits : undefined;
    const names = new Set(now.placements.map(({ name }) => name));
    const name = firstFree(
      (one) => names.has(one),
      (n) => `${part.short} ${n}`,
    );
    const own = (complete ?? addition.edits).map((edit): Edit =>
      count > 1 && edit.kind === 'add-placement' && edit.placement.id === addition.placement
        ? { ...edit, placement: { ...edit.placement, name } }
        : edit,
    );
    const result = applyEdits(now, own, sheets);
    if (!result.ok) break;
    now = result.plan;
    edits.push(...own);
    added += 1;
    if (complete || additionVerdict(addition) === 'fits') fit += 1;
  }
  return { edits, plan: now, count: added, fit };
}
