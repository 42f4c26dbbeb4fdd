import { firstOrThrow } from '../collections/orThrow';
import type { PlanContext } from '../plan/planContext';
import type { Controller } from '../sheets/boardSheet';
import { busLineOf, PIN_ROLES } from '../sheets/roles';
import { type IndexedBoard, partSheetOrThrow, type Sheets } from '../sheets/sheetIndex';
import type { Bus } from '../nets/buses';
import { linePins } from '../nets/controllers';
import type { Nets } from '../nets/nets';
import { passThroughOf, passThroughSource } from '../nets/passThrough';
import { terminalsOf, type PlanTerminal } from '../nets/terminals';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, splitKey } from '../plan/plan';
import { isFreeFor } from './fit/freePins';
import { type PinSet, pinSets } from './fit/pinSets';
import { pinFit } from './fit/pinFit';

/** The terminals of these placements that lie on the lines of a bus kind; for lines that go through a level shifter its
 *  terminals on the board's side. Lines that end at another part, as in a chain, are not on the bus. */
export function lineTerminals(plan: Plan, sheets: Sheets, members: readonly Placement[], kind: Bus['kind']): readonly PlanTerminal[] {
  const own = members.flatMap((m) => terminalsOf(plan, m, sheets)).filter((t) => PIN_ROLES[t.terminal.role]?.line?.kind === kind);
  const carriers = own.flatMap((item) => {
    const key = passThroughSource(plan, sheets, item.key);
    return key ? terminalsOf(plan, { id: splitKey(key).placement }, sheets).filter((t) => t.key === key) : [];
  });
  return [...own.filter((item) => item.wire?.end.to !== 'terminal'), ...new Set(carriers)];
}

/** The terminals that move when one part's lines go to other pins; null if a shifter channel also carries a line of another part, which
 *  would move with it. */
export function linesOfItsOwn(plan: Plan, sheets: Sheets, placement: Placement, kind: Bus['kind']): readonly PlanTerminal[] | null {
  const items = lineTerminals(plan, sheets, [placement], kind);
  const isShared = items.some(
    (item) =>
      item.placement.id !== placement.id &&
      passThroughOf(plan, item.placement, partSheetOrThrow(sheets, item.placement.sheet).sheet, item.terminal.id).some(
        (key) => splitKey(key).placement !== placement.id,
      ),
  );
  return isShared ? null : items;
}

const lineOf = (item: PlanTerminal): string => busLineOf(item.terminal.role).line;

/** The edits that bring line terminals onto a pin set, or null where a wire is locked elsewhere or a pin is taken. */
export function editsOnto(board: IndexedBoard, nets: Nets, items: readonly PlanTerminal[], set: PinSet): readonly Edit[] | null {
  const edits: Edit[] = [];
  for (const item of items) {
    const pin = set.pins[lineOf(item)];
    if (!pin) return null;
    if (item.wire?.end.to === 'pin' && item.wire.end.pin === pin) continue;
    if (item.wire?.locked || !isFreeFor(nets, pin, item) || pinFit(board, pin, item.terminal).verdict === 'cannot') return null;
    edits.push({ kind: 'wire', placement: item.placement.id, terminal: item.terminal.id, end: { to: 'pin', pin } });
  }
  return edits;
}

/** As editsOnto, where no other terminal may lie on the set's pins: not even on the same line of another controller. */
export function editsOntoFree(board: IndexedBoard, nets: Nets, items: readonly PlanTerminal[], set: PinSet): readonly Edit[] | null {
  const keys = new Set(items.map((item) => item.key));
  const isTaken = items.some((item) => nets.byPin.get(set.pins[lineOf(item)] ?? '')?.terminals.some((t) => !keys.has(t.key)));
  return isTaken ? null : editsOnto(board, nets, items, set);
}

/** Sets that keep one pin of a broken bus and take the controller's nearest legal partners for the rest. */
function setsAround(board: IndexedBoard, controller: Controller, pins: { readonly [line: string]: string }): readonly PinSet[] {
  if (controller.legal.rule === 'sets') return [];
  const kept = Object.fromEntries(
    Object.entries(pins).filter(([line, pin]) => linePins(board, controller.id, line).some((p) => p.id === pin)),
  );
  const missing = Object.keys(pins).filter((line) => !kept[line]);
  if (Object.keys(kept).length === 0 || missing.length !== 1) return [];
  const at = board.ioPins.findIndex((p) => p.id === Object.values(kept)[0]);
  const away = (id: string) => Math.abs(board.ioPins.findIndex((p) => p.id === id) - at);
  return linePins(board, controller.id, firstOrThrow(missing))
    .map((pin) => pin.id)
    .sort((a, b) => away(a) - away(b))
    .map((pin) => ({ controller: controller.id, pins: { ...kept, [firstOrThrow(missing)]: pin } }));
}

export interface BusMove {
  readonly set: PinSet;
  readonly edits: readonly Edit[];
}

/** Ways to bring all members of a bus onto one legal pin set, fewest moved wires first, one a controller. */
export function movesToLegal({ plan, sheets, board }: PlanContext, nets: Nets, bus: Bus): readonly BusMove[] {
  const items = lineTerminals(plan, sheets, bus.members, bus.kind);
  const controllers = board.sheet.controllers.list.filter((c) => c.kind === bus.kind);
  return controllers
    .flatMap((controller) => {
      const sets = [...setsAround(board, controller, bus.pins), ...pinSets(board, controller)];
      const moves = sets.flatMap((set) => {
        const edits = editsOnto(board, nets, items, set);
        return edits && edits.length > 0 ? [{ set, edits }] : [];
      });
      return moves.sort((a, b) => a.edits.length - b.edits.length).slice(0, 1);
    })
    .sort((a, b) => a.edits.length - b.edits.length);
}
