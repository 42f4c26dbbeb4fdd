import { partSide } from '../../electrics/reports/levelSides';
import { terminalsOf } from '../../nets/terminals';
import { typical } from '../../quantity/range';
import type { CheckContext } from '../engine/check';

/** The rail that the signals of a part follow: the one that feeds it, or one of the voltage that its own regulator makes. */
export function signalRail(context: CheckContext, id: string): string | undefined {
  const { plan, sheets, board } = context;
  const [item] = terminalsOf(plan, { id }, sheets);
  if (!item) return undefined;
  const { feed } = partSide(context, item, false).driver;
  if (feed.rail !== undefined) return feed.rail;
  return board.sheet.rails.list.find(
    (r) => r.direction !== 'in' && feed.volts.min <= typical(r.volts) && typical(r.volts) <= feed.volts.max,
  )?.id;
}
