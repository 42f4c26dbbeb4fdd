import type { PlanContext } from '../plan/planContext';
import type { PartSheet } from '../sheets/partSheet';
import { type ControllerKind, PIN_ROLES } from '../sheets/roles';
import { feedRail } from '../nets/feedRail';
import { type PlanTerminal, terminalsOf } from '../nets/terminals';
import type { Edit } from '../plan/edit';
import { endKey, type Wire, type WireEnd } from '../plan/plan';
import { type LineToTranslate, packShifterChannels } from './packShifterChannels';

/** Bus lines taken through a level shifter. */
export interface Shifted {
  /** The level shifter, there already or added. */
  readonly part: PartSheet;
  readonly added: boolean;
  readonly edits: readonly Edit[];
}

type AtPin = PlanTerminal & { readonly wire: Wire & { readonly end: WireEnd & { readonly to: 'pin' } } };

/** Whether a wire may be moved to another pin. */
export const isMovable = (item: PlanTerminal): item is AtPin => item.wire?.end.to === 'pin' && !item.wire.locked && !item.placement.onBoard;

/** Connects the bus lines of parts through a bidirectional level shifter, between their supply and the board's logic: one in the plan
 *  with free channels, otherwise a new one. Parts on one line share its channel.
 *  @param signals the rail with the voltage of a part's signals; by default the rail that supplies it
 *  @returns undefined where a line is locked or not at a pin, the parts' signals follow different supplies or the logic supply, or no
 *  sheet has a shifter */
export function behindShifter(
  { plan, sheets, board }: PlanContext,
  ids: readonly string[],
  kind: ControllerKind,
  signals: (id: string) => string | undefined = (id) => feedRail(plan, sheets, id),
): Shifted | undefined {
  const lines = ids.flatMap((id) => terminalsOf(plan, { id }, sheets)).filter((t) => PIN_ROLES[t.terminal.role]?.line?.kind === kind);
  const feeds = new Set(ids.map(signals));
  const [feed] = feeds;
  if (lines.length === 0 || !lines.every(isMovable) || feeds.size !== 1 || feed === undefined) return undefined;
  const pins = new Map(lines.map((item) => [endKey(item.wire.end), item.wire.end]));
  const crossings = [...pins.values()].map((pin): LineToTranslate => {
    const own = lines.filter((item) => endKey(item.wire.end) === endKey(pin));
    return { keys: own.map((item) => item.key), pin, way: 'both', hz: 0, sharesLine: true };
  });
  const packed = packShifterChannels({ plan, sheets, board }, feed, crossings);
  const [module] = packed?.modules ?? [];
  return packed && module ? { part: module.part, added: module.added, edits: packed.edits } : undefined;
}
