import type { Sheets } from '../../sheets/sheetIndex';
import { PIN_ROLES } from '../../sheets/roles';
import { boardOf, type EditResult, type EditRule, partOf, refuse } from '../edit';
import { PLAN_LIMITS, type Plan, terminalKey, type Wish } from '../plan';

/** The first field of a preference that does not exist on the board. */
function problem(plan: Plan, sheets: Sheets, wish: Wish): EditResult | null {
  const board = boardOf(plan, sheets);
  if (!board) return refuse('board', 'a known board sheet', plan.board.id);
  const pins = [...(wish.pin === undefined ? [] : [wish.pin]), ...(wish.not ?? [])];
  const strange = pins.find((id) => board.pins.get(id)?.kind !== 'io');
  if (strange !== undefined) return refuse(strange === wish.pin ? 'wish.pin' : 'wish.not', `a signal pin of ${board.sheet.title}`, strange);
  if (wish.pin !== undefined && wish.not?.includes(wish.pin)) return refuse('wish.not', `pins other than ${wish.pin}`, wish.pin);
  if (wish.controller !== undefined && !board.controllers.has(wish.controller))
    return refuse('wish.controller', `a controller of ${board.sheet.title}`, wish.controller);
  return null;
}

/** Sets the preference of one terminal, or removes it (`null`). Whether it can be met is decided by pin assignment. */
export const wish: EditRule<'wish'> = {
  apply(plan, { placement, terminal, wish: wanted }, sheets) {
    const key = terminalKey(placement, terminal);
    const { [key]: before, ...others } = plan.wishes;
    if (wanted) {
      const found = partOf(plan, placement, sheets)?.terminals.get(terminal);
      const demand = found && PIN_ROLES[found.role];
      if (!demand) return refuse('terminal', 'a terminal of this plan that needs a pin', key);
      if (wanted.controller !== undefined && !demand.line)
        return refuse('wish.controller', 'a preference for a controller on a bus line', key);
      if (!before && Object.keys(others).length >= PLAN_LIMITS.wishes)
        return refuse('wish', `at most ${PLAN_LIMITS.wishes} preferences`, 'one more');
      const bad = problem(plan, sheets, wanted);
      if (bad) return bad;
    }
    return {
      ok: true,
      plan: { ...plan, wishes: wanted ? { ...others, [key]: wanted } : others },
      inverse: [{ kind: 'wish', placement, terminal, wish: before ?? null }],
    };
  },
};
