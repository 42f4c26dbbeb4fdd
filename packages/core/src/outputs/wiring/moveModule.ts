import type { Edit } from '../../plan/edit';
import type { ModulePlace, Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { wiringPicture } from './wiringPicture';

/** How a module is moved: by one place up or down, to the other side of the board, or turned half round. */
export type ModuleMove = 'up' | 'down' | 'across' | 'turn';

/** The edit that moves a part in the wiring picture. Undefined for what is no part of the plan there, and where there is nothing above or
 *  below it. */
export function moveModule(plan: Plan, sheets: Sheets, placement: string, move: ModuleMove): Edit | undefined {
  const heads = (wiringPicture(plan, sheets)?.modules ?? []).filter(({ module }) => plan.placements.some(({ id }) => id === module.id));
  const own = heads.find(({ module }) => module.id === placement);
  if (!own) return undefined;
  const column = heads.filter(({ side }) => side === own.side).toSorted((a, b) => a.y - b.y);
  const at = column.indexOf(own);
  const turned = plan.layout[placement]?.turned === true;
  const to = (place: Omit<ModulePlace, 'turned'>, isTurned: boolean): Edit => ({
    kind: 'arrange',
    placement,
    place: { ...place, ...(isTurned ? { turned: true as const } : {}) },
  });
  if (move === 'turn') return to({ side: own.side, at }, !turned);
  if (move === 'across') {
    const side = own.side === 'left' ? 'right' : 'left';
    const above = heads.filter((one) => one.side === side && one.y < own.y).length;
    return to({ side, at: above }, turned);
  }
  const next = move === 'up' ? at - 1 : at + 1;
  return next < 0 || next >= column.length ? undefined : to({ side: own.side, at: next }, turned);
}
