import { terminalText } from '../text/names';
import { formatSi } from '../quantity/format';
import { boardOf } from '../plan/edit';
import { type Plan, terminalKey, type WireEnd } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';

/** Where a wire goes, as it is printed there. */
export function endText(plan: Plan, sheets: Sheets, end: WireEnd): string {
  const board = boardOf(plan, sheets);
  switch (end.to) {
    case 'pin':
      return board?.pins.get(end.pin)?.label ?? end.pin;
    case 'rail':
      return board?.sheet.rails.list.find((rail) => rail.id === end.rail)?.label ?? end.rail;
    case 'ground':
      return 'GND';
    case 'terminal':
      return terminalText(plan, sheets, terminalKey(end.placement, end.terminal));
    case 'trimmer':
      return `${formatSi(end.ohms, 'Ω')} trimmer`;
    case 'divider':
      return `${formatSi(end.topOhms, 'Ω')} / ${formatSi(end.bottomOhms, 'Ω')} divider`;
  }
}
