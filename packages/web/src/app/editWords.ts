import { sayTerminal } from '@roof-chart/core/checks/say';
import { type Plan, terminalKey, type WireEnd } from '@roof-chart/core/plan/plan';
import { boardSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** A wire end in words.
 *  @example endWords(plan, sheets, { to: 'pin', pin: 'GP4' }) // 'GP4' */
export function endWords(plan: Plan, sheets: Sheets, end: WireEnd): string {
  const board = boardSheet(sheets, plan.board);
  switch (end.to) {
    case 'pin':
      return board?.pins.get(end.pin)?.label ?? end.pin;
    case 'rail':
      return board?.sheet.rails.list.find((rail) => rail.id === end.rail)?.label ?? end.rail;
    case 'ground':
      return 'GND';
    case 'terminal':
      return sayTerminal(plan, sheets, terminalKey(end.placement, end.terminal));
  }
}
