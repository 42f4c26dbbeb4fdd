import { has } from '../collections/has';
import { firstOrThrow } from '../collections/orThrow';
import type { PlanContext } from '../plan/planContext';
import { busLineOf, type ControllerKind, PIN_ROLES } from '../sheets/roles';
import type { Tie } from '../sheets/partSheet';
import { type IndexedBoard, partSheetOrThrow, type Sheets } from '../sheets/sheetIndex';
import { addressesOf } from '../nets/addresses';
import { reachedFrom } from '../nets/channels';
import { type Bus, findBuses } from '../nets/buses';
import { findNets } from '../nets/nets';
import { openOf } from '../nets/openTerminals';
import { terminalsOf, type PlanTerminal } from '../nets/terminals';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, splitKey } from '../plan/plan';
import { typical } from '../quantity/range';
import { feedRail } from '../nets/feedRail';
import { freePins } from './fit/freePins';
import { editsOnto, lineTerminals } from './moveBus';
import { wantsPin } from './fit/pinFit';
import { type PinSet, pinSetsOf } from './fit/pinSets';
import { railsFor, tieEnd } from './fit/railFit';
import { strapEdits } from './addresses/strapEdits';

/** A plan that grows while wires are proposed, so that later proposals see earlier ones. */
class Draft {
  readonly edits: Edit[] = [];
  constructor(
    public plan: Plan,
    readonly sheets: Sheets,
    readonly board: IndexedBoard,
  ) {}

  take(edits: readonly Edit[]): void {
    const result = applyEdits(this.plan, edits, this.sheets);
    if (!result.ok) throw new Error(`A proposed edit does not apply: ${JSON.stringify(result.problem)}`);
    this.plan = result.plan;
    this.edits.push(...edits);
  }

  open(placement: string): readonly PlanTerminal[] {
    return openOf(this.plan, terminalsOf(this.plan, { id: placement }, this.sheets));
  }
}

const wireTo = (item: PlanTerminal, end: Extract<Edit, { kind: 'wire' }>['end']): Edit => ({
  kind: 'wire',
  placement: item.placement.id,
  terminal: item.terminal.id,
  end,
});

function tied(draft: Draft, item: PlanTerminal, tie: Tie, maxVolts?: number): Edit[] {
  const end = tieEnd(draft, item, tie, maxVolts);
  return end ? [wireTo(item, end)] : [];
}

function strapEnd(draft: Draft, item: PlanTerminal): Edit[] {
  const strap = item.part.bus.straps?.find((s) => s.by === 'terminal' && (s.terminal ?? s.id) === item.terminal.id);
  const tie = strap ? strap.states.find((s) => s.id === strap.default)?.tie : item.terminal.ties?.[0];
  return tie ? tied(draft, item, tie, strap?.maxVolts) : [];
}

/** The rail for a supply terminal. Each side of a level shifter follows the parts connected to it; the high side of an unused one is put
 *  on a rail above the logic supply if there is one. */
function railFor(draft: Draft, item: PlanTerminal): string | undefined {
  const rails = railsFor(draft.board, item.part, item.terminal);
  const { levelShifter } = item.part;
  if (!levelShifter || levelShifter.low === levelShifter.high || ![levelShifter.low, levelShifter.high].includes(item.terminal.id))
    return rails[0]?.id;
  const isLow = item.terminal.id === levelShifter.low;
  const ends = levelShifter.channels.map((c) => (isLow ? c.low : c.high));
  const users = Object.entries(draft.plan.wires).flatMap(([key, { end }]) =>
    end.to === 'terminal' && end.placement === item.placement.id && ends.includes(end.terminal) ? [splitKey(key).placement] : [],
  );
  const fed = users.map((id) => feedRail(draft.plan, draft.sheets, id)).find((id) => rails.some((rail) => rail.id === id));
  const logic = draft.board.sheet.rails.list.find((rail) => rail.id === draft.board.sheet.logicRail);
  const above = isLow || !logic ? undefined : rails.find((rail) => typical(rail.volts) > typical(logic.volts));
  return fed ?? above?.id ?? rails[0]?.id;
}

/** The end of a terminal that is not a signal: supply, ground, straps, and inputs that are tied. */
function restOf(draft: Draft, item: PlanTerminal): readonly Edit[] {
  const { role, ties, bias } = item.terminal;
  if (bias) return [wireTo(item, { to: 'trimmer', ohms: bias.trimmerOhms })];
  if (role === 'ground') return [wireTo(item, { to: 'ground' })];
  if (role === 'strap') return strapEnd(draft, item);
  const rail = role === 'supply.vcc' ? railFor(draft, item) : undefined;
  if (rail) return [wireTo(item, { to: 'rail', rail })];
  // Enable and mode inputs that can be tied are tied, to save pins.
  return ties?.length === 1 ? tied(draft, item, firstOrThrow(ties)) : [];
}

const proposeSupply = (draft: Draft, placement: Placement): void =>
  draft.take(draft.open(placement.id).flatMap((item) => restOf(draft, item)));

/** A pin set to try, with the straps that keep addresses apart on it. */
interface Way {
  readonly set: PinSet;
  readonly straps: readonly Edit[];
}

/** Straps that avoid an address conflict on the bus: none needed, some, or null if none help. */
function strapsFor(draft: Draft, placement: Placement, bus: Bus): readonly Edit[] | null {
  const others = bus.members.filter((m) => m.id !== placement.id);
  const answering = [...others, ...reachedFrom(draft.plan, draft.sheets, others)];
  const taken = new Set(answering.flatMap((m) => addressesOf(draft.plan, m, draft.sheets).map((a) => a.address)));
  const mine = addressesOf(draft.plan, placement, draft.sheets);
  const met = mine.filter((a) => taken.has(a.address));
  if (met.length === 0) return [];
  const part = partSheetOrThrow(draft.sheets, placement.sheet).sheet;
  const row = firstOrThrow(met).device.addresses.find(
    (a) => !taken.has(a.address) && strapEdits(draft, { placement, part }, a.straps)?.length,
  );
  return met.length === 1 && row ? strapEdits(draft, { placement, part }, row.straps) : null;
}

/** Ways to wire a bus part, best first: a bus that is there, a strap away from its members, a controller of its own;
 *  last a bus on which addresses meet, which the checks will name. */
function waysOnto(draft: Draft, placement: Placement, kind: ControllerKind): readonly Way[] {
  const buses = findBuses(draft.plan, draft.sheets)
    .filter(has('controller'))
    .filter((bus) => bus.kind === kind && kind !== 'uart');
  const joins = buses.map((bus) => ({ set: { controller: bus.controller, pins: bus.pins }, straps: strapsFor(draft, placement, bus) }));
  const used = new Set(buses.map((bus) => bus.controller));
  const sets = pinSetsOf(draft.board, kind).map((set): Way => ({ set, straps: [] }));
  return [
    ...joins.flatMap(({ set, straps }): Way[] => (straps?.length === 0 ? [{ set, straps }] : [])),
    ...joins.flatMap(({ set, straps }): Way[] => (straps && straps.length > 0 ? [{ set, straps }] : [])),
    ...sets.filter(({ set }) => !used.has(set.controller)),
    ...joins.flatMap(({ set, straps }): Way[] => (straps ? [] : [{ set, straps: [] }])),
    ...sets,
  ];
}

function proposeBus(draft: Draft, placement: Placement): void {
  const kinds = new Set(draft.open(placement.id).flatMap((t) => PIN_ROLES[t.terminal.role]?.line?.kind ?? []));
  for (const kind of kinds) {
    const nets = findNets(draft.plan, draft.sheets);
    const items = lineTerminals(draft.plan, draft.sheets, [placement], kind).filter((t) => t.terminal.need === 'needed');
    for (const { set, straps } of waysOnto(draft, placement, kind)) {
      const edits = editsOnto(draft.board, nets, items, { ...set, pins: withMissingLines(draft, set, items) });
      if (!edits) continue;
      draft.take([...straps, ...edits]);
      break;
    }
  }
}

/** An existing bus may lack a line that the newcomer brings (the first reader of an SPI bus brings MISO). */
function withMissingLines(draft: Draft, set: PinSet, items: readonly PlanTerminal[]): PinSet['pins'] {
  const nets = findNets(draft.plan, draft.sheets);
  const pins: { [line: string]: string } = { ...set.pins };
  for (const item of items) {
    const line = busLineOf(item.terminal.role).line;
    if (pins[line]) continue;
    const free = freePins(draft.board, nets, item).find((pin) =>
      draft.board.pins.get(pin)?.functions?.includes(`${set.controller}.${line}`),
    );
    if (free) pins[line] = free;
  }
  return pins;
}

function proposePrivate(draft: Draft, placement: Placement): void {
  for (const item of draft.open(placement.id)) {
    if (!wantsPin(item.terminal) || PIN_ROLES[item.terminal.role]?.line || item.terminal.role === 'strap') continue;
    const pin = freePins(draft.board, findNets(draft.plan, draft.sheets), item)[0];
    if (pin) draft.take([wireTo(item, { to: 'pin', pin })]);
  }
}

/** Proposes wires for the unconnected required terminals of one placement without moving existing wires: supply and ground by voltage,
 *  straps by default, bus lines onto an existing bus or a free pin set, the rest onto free pins. A terminal without a free pin stays
 *  unconnected.
 *  @returns edits that apply one after another to this plan */
export function proposeWires({ plan, sheets, board }: PlanContext, placement: Placement, scope: 'supply' | 'all' = 'all'): readonly Edit[] {
  const draft = new Draft(plan, sheets, board);
  proposeSupply(draft, placement);
  if (scope === 'all') {
    proposeBus(draft, placement);
    proposePrivate(draft, placement);
  }
  return draft.edits;
}
