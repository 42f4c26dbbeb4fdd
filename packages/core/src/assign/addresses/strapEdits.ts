import { strapState } from '../../nets/addresses';
import type { Edit } from '../../plan/edit';
import { terminalKey } from '../../plan/plan';
import type { PlacedPart, PlanOnBoard } from '../../plan/planContext';
import { tieEnd } from '../fit/railFit';

/** The edits that set a placement's straps to the given states; null where a strap cannot be set (its wire is locked, or no rail of the
 *  board is safe for it). */
export function strapEdits(
  { plan, board }: PlanOnBoard,
  { placement, part }: PlacedPart,
  wanted: { readonly [strap: string]: string },
): readonly Edit[] | null {
  const edits: Edit[] = [];
  for (const strap of part.bus.straps ?? []) {
    const state = wanted[strap.id];
    if (state === undefined || state === strapState(plan, placement, part, strap)) continue;
    if (strap.by === 'jumper') {
      edits.push({ kind: 'strap', placement: placement.id, strap: strap.id, state });
      continue;
    }
    const terminal = strap.terminal ?? strap.id;
    const tie = strap.states.find((s) => s.id === state)?.tie;
    const wire = plan.wires[terminalKey(placement.id, terminal)];
    if (!tie && state === strap.default && wire && !wire.locked) {
      edits.push({ kind: 'unwire', placement: placement.id, terminal });
      continue;
    }
    const end = tie && tieEnd({ plan, board }, { placement, part }, tie, strap.maxVolts);
    if (!end || wire?.locked) return null;
    edits.push({ kind: 'wire', placement: placement.id, terminal, end });
  }
  return edits;
}
