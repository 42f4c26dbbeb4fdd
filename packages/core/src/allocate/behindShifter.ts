import { typical } from '../quantity/range';
import type { Rail } from '../sheets/boardSheet';
import type { PartSheet } from '../sheets/partSheet';
import { type ControllerKind, PIN_ROLES } from '../sheets/roles';
import { type IndexedBoard, partSheet, type Sheets } from '../sheets/sheetIndex';
import { findNets } from '../nets/nets';
import { type PlanTerminal, terminalsOf } from '../nets/terminals';
import type { Edit } from '../plan/edit';
import { newPlacement } from '../plan/newPlacement';
import { endKey, type Placement, type Plan, terminalKey, type WireEnd } from '../plan/plan';

/** Bus lines taken through a level shifter. */
export interface Shifted {
  /** The level shifter, there already or added. */
  readonly part: PartSheet;
  readonly added: boolean;
  readonly edits: readonly Edit[];
}

interface Found {
  readonly placement: Placement;
  readonly part: PartSheet;
  readonly added: boolean;
  /** Channels that nothing is wired to, as the end on the board's side and that on the part's. */
  readonly free: readonly { readonly near: string; readonly far: string }[];
}

const railOf = (board: IndexedBoard, id: string | undefined): Rail | undefined => board.sheet.rails.list.find((rail) => rail.id === id);

function freeChannels(plan: Plan, id: string, part: PartSheet, nearIsLow: boolean): Found['free'] {
  const taken = new Set([
    ...Object.keys(plan.wires),
    ...Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [terminalKey(end.placement, end.terminal)] : [])),
  ]);
  return part
    .passage!.channels.filter(({ low, high }) => ![low, high].some((t) => taken.has(terminalKey(id, t))))
    .map(({ low, high }) => (nearIsLow ? { near: low, far: high } : { near: high, far: low }));
}

/** A level shifter of the plan that stands between these rails the same way round and has room. */
function present(plan: Plan, sheets: Sheets, low: string, high: string, nearIsLow: boolean, count: number): Found | undefined {
  const nets = findNets(plan, sheets);
  const fedBy = (id: string, terminal: string) => nets.byTerminal.get(terminalKey(id, terminal))?.rails[0];
  for (const placement of plan.placements) {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    const { passage } = part ?? {};
    if (!part || passage?.kind !== 'mosfet' || fedBy(placement.id, passage.low) !== low || fedBy(placement.id, passage.high) !== high)
      continue;
    const carrier = terminalsOf(plan, placement, sheets).find((t) => t.carries);
    if (carrier && passage.channels.some((c) => c.low === carrier.terminal.id) !== nearIsLow) continue;
    const free = freeChannels(plan, placement.id, part, nearIsLow);
    if (free.length >= count) return { placement, part, added: false, free };
  }
  return undefined;
}

function fresh(plan: Plan, sheets: Sheets, nearIsLow: boolean, count: number): Found | undefined {
  const part = [...sheets.parts.values()]
    .map((p) => p.sheet)
    .filter((p) => p.passage?.kind === 'mosfet' && p.passage.channels.length >= count)
    .toSorted((a, b) => a.passage!.channels.length - b.passage!.channels.length || (a.id < b.id ? -1 : 1))[0];
  if (!part) return undefined;
  const placement = newPlacement(plan, part);
  return { placement, part, added: true, free: freeChannels(plan, placement.id, part, nearIsLow) };
}

const wire = (placement: string, terminal: string, end: WireEnd): Edit => ({ kind: 'wire', placement, terminal, end });

/** The rail that feeds a part. */
function feedRail(plan: Plan, sheets: Sheets, board: IndexedBoard, id: string): Rail | undefined {
  const supply = terminalsOf(plan, { id }, sheets).find((t) => t.terminal.role === 'supply.vcc');
  return railOf(board, supply && findNets(plan, sheets).byTerminal.get(supply.key)?.rails[0]);
}

/** The shared lines of parts through a level shifter between their supply and the board's logic: one of the plan that has room, else a
 *  new one, fed and grounded. Parts on one line share its channel. Undefined where a line is locked or not at a pin, the parts hang on
 *  different supplies or on the logic supply, or no sheet has a shifter. */
export function behindShifter(
  plan: Plan,
  sheets: Sheets,
  board: IndexedBoard,
  ids: readonly string[],
  kind: ControllerKind,
): Shifted | undefined {
  const lines = ids.flatMap((id) => terminalsOf(plan, { id }, sheets)).filter((t) => PIN_ROLES[t.terminal.role]?.line?.kind === kind);
  const movable = (item: PlanTerminal) => item.wire?.end.to === 'pin' && !item.wire.locked && !item.placement.onBoard;
  const feeds = new Set(ids.map((id) => feedRail(plan, sheets, board, id)));
  const [feed] = feeds;
  const logic = railOf(board, board.sheet.logicRail);
  if (lines.length === 0 || !lines.every(movable) || feeds.size !== 1 || !feed || !logic || feed.id === logic.id) return undefined;
  const pins = [...new Set(lines.map((item) => endKey(item.wire!.end)))];
  const nearIsLow = typical(logic.volts) < typical(feed.volts);
  const [low, high] = nearIsLow ? [logic, feed] : [feed, logic];
  const found = present(plan, sheets, low.id, high.id, nearIsLow, pins.length) ?? fresh(plan, sheets, nearIsLow, pins.length);
  if (!found) return undefined;
  const { placement, part } = found;
  const grounds = part.terminals.list.filter((t) => t.role === 'ground' && t.need === 'needed');
  const setUp: readonly Edit[] = found.added
    ? [
        { kind: 'add-placement', placement },
        wire(placement.id, part.passage!.low, { to: 'rail', rail: low.id }),
        wire(placement.id, part.passage!.high, { to: 'rail', rail: high.id }),
        ...grounds.map((t) => wire(placement.id, t.id, { to: 'ground' })),
      ]
    : [];
  const across = pins.flatMap((pin, at) => {
    const own = lines.filter((item) => endKey(item.wire!.end) === pin);
    const far: WireEnd = { to: 'terminal', placement: placement.id, terminal: found.free[at]!.far };
    return [
      ...own.map((item) => wire(item.placement.id, item.terminal.id, far)),
      wire(placement.id, found.free[at]!.near, own[0]!.wire!.end),
    ];
  });
  return { part, added: found.added, edits: [...setUp, ...across] };
}
