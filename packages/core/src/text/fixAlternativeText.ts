import { placementText } from './names';
import type { Plan } from '../plan/plan';
import type { FixAlternative } from '../review/fixAlternatives';
import type { Sheets } from '../sheets/sheetIndex';

/** A larger change as the label of its button.
 *  @example 'Use the board RP2040 stick, 40 pins' */
export function alternativeText(plan: Plan, sheets: Sheets, one: FixAlternative): string {
  switch (one.kind) {
    case 'assign':
      return 'Assign all pins again';
    case 'form':
      return `Use ${sheets.parts.get(one.form)?.sheet.title ?? one.form} for ${placementText(plan, one.placement)}`;
    case 'board':
      return `Use the board ${sheets.boards.get(one.board)?.sheet.title ?? one.board}`;
  }
}
