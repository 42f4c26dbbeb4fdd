import { formatSi } from '../quantity/format';
import type { ControllerKind } from '../sheets/roles';
import type { IndexedBoard } from '../sheets/sheetIndex';
import { softwareHz } from '../sheets/softwareBuses';

/** The unit of a bus clock. */
export const clockUnit = (kind: ControllerKind): 'Hz' | 'baud' => (kind === 'uart' ? 'baud' : 'Hz');

/** What a bus of a kind runs at, by a program and by the fastest controller of the chip.
 *  @example softwareSpeed(board, 'spi') // '500 kHz instead of 8 MHz' */
export function softwareSpeed(board: IndexedBoard, kind: ControllerKind): string {
  const unit = clockUnit(kind);
  const hardware = board.sheet.controllers.list.filter((c) => c.kind === kind && !c.software).map((c) => c.maxHz);
  const own = formatSi(softwareHz(board, kind) ?? 0, unit);
  return hardware.length > 0 ? `${own} instead of ${formatSi(Math.max(...hardware), unit)}` : own;
}
