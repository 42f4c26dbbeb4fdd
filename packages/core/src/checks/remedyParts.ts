import { freePins } from '../allocate/freePins';
import type { BoardPin } from '../sheets/boardSheet';
import type { PlanTerminal } from '../nets/terminals';
import type { WireEnd } from '../plan/plan';
import type { CheckContext, Remedy } from './check';

/** "Move TERMINAL to PIN": the terminal goes to its best free pin. None where it is locked or no pin is free. */
export function moveToFree(context: CheckContext, item: PlanTerminal): readonly Remedy[] {
  if (item.wire?.locked) return [];
  const pin = freePins(context.board, context.nets, item)[0];
  return pin ? [rewire(item, { to: 'pin', pin }, 'move', { pin: { is: 'pin', pin } })] : [];
}

/** As `moveToFree`, to the best free pin that this accepts. */
export function moveWhere(context: CheckContext, item: PlanTerminal, accepts: (pin: BoardPin) => boolean): readonly Remedy[] {
  if (item.wire?.locked || item.placement.onBoard) return [];
  const pin = freePins(context.board, context.nets, item).find((id) => accepts(context.board.pins.get(id)!));
  return pin ? [rewire(item, { to: 'pin', pin }, 'move', { pin: { is: 'pin', pin } })] : [];
}

/** One wire to another end, under a label of the check. */
export function rewire(item: PlanTerminal, end: WireEnd, label: string, data: Remedy['data'], grade: Remedy['grade'] = 'offered'): Remedy {
  return {
    label,
    data: { terminal: { is: 'terminal', key: item.key }, ...data },
    grade,
    edits: [{ kind: 'wire', placement: item.placement.id, terminal: item.terminal.id, end }],
  };
}
