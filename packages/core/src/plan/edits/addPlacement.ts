import { partSheet } from '../../sheets/sheetIndex';
import { boardOf, type EditRule, placementIndex, refuse } from '../edit';
import { PLAN_LIMITS } from '../plan';

export const addPlacement: EditRule<'add-placement'> = {
  apply(plan, edit, sheets) {
    const { placement } = edit;
    if (placementIndex(plan, placement.id) >= 0) return refuse('placement.id', 'an unused ID', placement.id);
    const part = partSheet(sheets, placement.sheet);
    if (!part) return refuse('placement.sheet.id', 'the ID of a part in the library', placement.sheet.id);
    if (placement.onBoard && !boardOf(plan, sheets)?.sheet.onBoard.parts?.some((p) => p.part === placement.sheet.id)) {
      return refuse('placement.onBoard', 'a part soldered to the board', placement.sheet.id);
    }
    if (plan.placements.length >= PLAN_LIMITS.placements) {
      return refuse('placement', `at most ${PLAN_LIMITS.placements} parts in a plan`, 'one more');
    }
    for (const [strap, state] of Object.entries(placement.straps)) {
      const known = part.sheet.bus.straps?.find((s) => s.id === strap);
      if (!known?.states.some((s) => s.id === state)) {
        return refuse(`placement.straps.${strap}`, `a strap state of ${part.sheet.id}`, state);
      }
    }
    const at = Math.min(edit.at ?? plan.placements.length, plan.placements.length);
    return {
      ok: true,
      plan: { ...plan, placements: plan.placements.toSpliced(at, 0, placement) },
      inverse: [{ kind: 'remove-placement', placement: placement.id }],
    };
  },
};
