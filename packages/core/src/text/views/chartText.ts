import { endFit, fitReason } from '../../assign/fit/endFit';
import { wantsPin } from '../../assign/fit/pinFit';
import type { PlanTerminal } from '../../nets/terminals';
import { sameEnd, type WireEnd } from '../../plan/plan';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { counted } from '../../quantity/format';

/** A cell of the Chart: a terminal, and an end that its wire has or could have. */
export interface ChartCell {
  readonly board: IndexedBoard;
  readonly item: PlanTerminal;
  readonly end: WireEnd;
  /** What the column is called. */
  readonly name: string;
  /** What a wire there would come to, where one is possible. */
  readonly choice: 'taken' | 'costs' | 'free' | undefined;
}

const CHOICE_TEXT = { taken: 'error, in use', costs: 'possible, with a caveat', free: 'possible' } as const;

/** What a cell says to a screen reader: the column, and whether the wire of the row is there or could be.
 *  @example cellText(cell) // 'GP4: connected here, locked' */
export function cellText({ board, item, end, name, choice = 'free' }: ChartCell): string {
  if (sameEnd(item.wire?.end, end)) return `${name}: connected here${item.wire?.locked ? ', locked' : ''}`;
  const fit = endFit(board, item.part, item.terminal, end);
  const pin = end.to === 'pin' ? board.pins.get(end.pin) : undefined;
  return fit.verdict === 'cannot' ? `${name}: not possible. ${fitReason(fit, item.terminal, pin)}` : `${name}: ${CHOICE_TEXT[choice]}`;
}

/** How many other places a wire could have.
 *  @param hasPlace whether it has one now, which is not counted
 *  @example freeText(item, 3, true) // 'OLED SDA: 3 other free pins' */
export function freeText({ placement, terminal }: PlanTerminal, free: number, hasPlace: boolean): string {
  const what = `${hasPlace ? 'other ' : ''}free ${wantsPin(terminal) ? 'pin' : 'place'}`;
  return `${placement.name} ${terminal.label}: ${free === 0 ? `no ${what}s` : counted(free, what)}`;
}
