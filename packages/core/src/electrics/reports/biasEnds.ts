import type { PlanTerminal } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { Plan, WireEnd } from '../../plan/plan';
import { typical } from '../../quantity/range';
import { valuesWithin } from '../../quantity/series';
import type { Sheets } from '../../sheets/sheetIndex';
import { feedOf } from './busInputs';
import { contrastDivider } from '../formulas/dividers';

/** What may set the voltage of a terminal that needs one between supply and ground: a trimmer, or a fixed divider of values on hand.
 *  Empty for other terminals; without the divider where the supply leaves no voltage to divide. */
export function biasEnds(
  plan: Plan,
  sheets: Sheets,
  { terminal, placement }: Pick<PlanTerminal, 'terminal' | 'placement'>,
): readonly WireEnd[] {
  const board = boardOf(plan, sheets);
  const { bias } = terminal;
  if (!bias || !board) return [];
  const { top, bottom } = contrastDivider({
    volts: typical(feedOf(plan, sheets, board, placement.id).volts),
    glassVolts: typical(bias.belowSupplyVolts),
    trimmerOhms: bias.trimmerOhms,
    values: valuesWithin(plan.valuesOnHand, 10, 1e6),
  });
  const fixed: readonly WireEnd[] = top === undefined || bottom === undefined ? [] : [{ to: 'divider', topOhms: top, bottomOhms: bottom }];
  return [{ to: 'trimmer', ohms: bias.trimmerOhms }, ...fixed];
}
