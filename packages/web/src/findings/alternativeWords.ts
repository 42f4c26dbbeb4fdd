import { sayPlacement } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { FixAlternative } from '@roof-chart/core/review/fixAlternatives';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** A larger change as the label of its button.
 *  @example 'Use the board RP2040 stick, 40 pins' */
export function alternativeWords(plan: Plan, sheets: Sheets, one: FixAlternative): string {
  switch (one.kind) {
    case 'assign':
      return 'Assign all pins again';
    case 'form':
      return `Use ${sheets.parts.get(one.form)?.sheet.title ?? one.form} for ${sayPlacement(plan, one.placement)}`;
    case 'board':
      return `Use the board ${sheets.boards.get(one.board)?.sheet.title ?? one.board}`;
  }
}
