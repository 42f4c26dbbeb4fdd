import { findOrThrow } from '../../collections/orThrow';
import { type Condition, CONDITIONS } from '../../sheets/condition';
import { sheetsUnder } from '../../sheets/conditions';
import { boardOf } from '../../plan/edit';
import type { CheckContext, Level } from './check';

/** What a trouble weighs that is there from a condition on: it is always there, within the usual tolerance, or only where every extreme
 *  meets. */
export const LEVEL_FROM: { readonly [C in Condition]: Level } = { nominal: 'clash', usual: 'risk', extreme: 'hint' };

/** The context of a check with its board's rails as they are under a condition. */
export function under(context: CheckContext, condition: Condition): CheckContext {
  const sheets = sheetsUnder(context.sheets, condition);
  return { ...context, sheets, board: boardOf(context.plan, sheets) ?? context.board };
}

/** The mildest supply condition under which something holds; `extreme` if under no other.
 *  @param isSo is called for the nominal and the normal condition only */
export const mildest = (context: CheckContext, isSo: (under: CheckContext) => boolean): Condition =>
  findOrThrow(CONDITIONS, (condition) => condition === 'extreme' || isSo(under(context, condition)));
