import { type Component, planComponents } from '../../electrics/reports/components';
import { boardOf } from '../../plan/edit';
import { type Breadboard, type Plan, splitKey, type TerminalKey } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { pinAtPosition } from '../boardPosition';
import type { ChipEnd } from '../chipCircuit';
import { type Hole, holeText } from './breadboard';
import { holePlan, type HolePlan, type Jumper, type JumperFor, type Lead, type PlacedItem } from './holePlan';

/** What a step does on the breadboard: jumpers from hole to hole, and leads of what is not on it. */
export interface StepHoles {
  readonly jumpers: readonly Jumper[];
  readonly leads: readonly Lead[];
  /** Holes of the legs of a component; those that are not alike by name. */
  readonly legs: readonly { readonly name?: string; readonly hole: Hole }[];
}

const isFor = (one: JumperFor, item: string, leg: string): boolean => 'item' in one && one.item === item && one.leg === leg;

interface InWire {
  readonly key: TerminalKey;
  /** What is in the wire. */
  readonly components: readonly Component[];
}

/** The holes of a wire: its jumper, those to the components in it, or the lead that does for it. */
export function holesOfWire(plan: Plan, sheets: Sheets, { key, components }: InWire): StepHoles | undefined {
  const holes = holePlan(plan, sheets);
  if (!holes) return undefined;
  const { placement, terminal } = splitKey(key);
  const ids = new Set(components.map(({ id }) => id));
  const isOwn = ({ for: one }: Jumper) =>
    isFor(one, placement, terminal) || ('component' in one && ids.has(one.component)) || ('item' in one && ids.has(one.item));
  const jumpers = holes.jumpers.filter(isOwn);
  const isHere = (end: Lead['end']) => end.module === placement && end.terminal === terminal;
  const own = holes.leads.filter(({ end, to }) => isHere(end) || (to.at === 'end' && isHere(to.end)));
  // The first strip of a net has no jumper of its own: the lead of the board goes there.
  const net = netOf(holes, placement, terminal);
  const board = jumpers.length === 0 ? holes.leads.filter((lead) => lead.net === net && lead.end.module === 'board') : [];
  return { jumpers, leads: [...own, ...board], legs: [] };
}

/** Holes as they are kept with the tick of a step.
 *  @example holesValue(breadboard, holes) // '8 i → 28 g' */
export function holesValue(breadboard: Breadboard | null, holes: StepHoles | undefined): string {
  if (!breadboard || !holes) return '';
  const { jumpers, leads, legs } = holes;
  const text = (hole: Hole) => holeText(breadboard, hole);
  return [
    ...jumpers.map(({ from, to }) => `${text(from)} → ${text(to)}`),
    ...leads.flatMap(({ to }) => (to.at === 'hole' ? [text(to.hole)] : [])),
    ...legs.map(({ hole }) => text(hole)),
  ]
    .join(', ')
    .slice(0, 110);
}

const netOf = ({ nets }: HolePlan, item: string, leg: string): string | undefined => nets.get(`${item} ${leg}`);

/** The name of a leg, where it matters which is which. */
function legName({ ends, polar }: Component, end: number): { readonly name?: string } {
  const name = ends[end]?.leg ?? (polar ? (end === 0 ? 'plus' : 'minus') : undefined);
  return name === undefined ? {} : { name };
}

/** The holes of the legs of a component. */
export function holesOfComponent(plan: Plan, sheets: Sheets, component: string): StepHoles | undefined {
  const holes = holePlan(plan, sheets);
  if (!holes) return undefined;
  const bridge = holes.bridges.find(({ id }) => id === component);
  const item = holes.items.find(({ id }) => id === component);
  const own = planComponents(plan, sheets).find(({ id }) => id === component);
  const legs = bridge
    ? bridge.holes.map((hole, at) => ({ end: at, hole }))
    : (item?.legs ?? []).map(({ id, hole }) => ({ end: Number(id), hole }));
  return { jumpers: [], leads: [], legs: legs.map(({ end, hole }) => ({ ...(own ? legName(own, end) : {}), hole })) };
}

const pinAt = (board: IndexedBoard, { at }: ChipEnd): string | undefined => at && pinAtPosition(board, at);

/** The jumpers from pins of a bare chip to the rails. */
export function holesOfChipPins(plan: Plan, sheets: Sheets, ends: readonly ChipEnd[]): StepHoles | undefined {
  const holes = holePlan(plan, sheets);
  const board = boardOf(plan, sheets);
  if (!holes || !board) return undefined;
  const pins = new Set(ends.map((end) => pinAt(board, end)));
  const jumpers = holes.jumpers.filter(({ for: one }) => 'item' in one && one.item === 'board' && pins.has(one.leg));
  return { jumpers, leads: [], legs: [] };
}

/** The hole of a pin of a bare chip: a lead from a connector goes into another one of its row. */
export function holeOfChipPin(plan: Plan, sheets: Sheets, end: ChipEnd): Hole | undefined {
  const board = boardOf(plan, sheets);
  const pin = board && pinAt(board, end);
  return holePlan(plan, sheets)
    ?.items.find(({ id }) => id === 'board')
    ?.legs.find(({ id }) => id === pin)?.hole;
}

/** What is plugged in before any wire, from the board on: what has a place and is no component. */
export const itemsToPlug = ({ items }: HolePlan): readonly PlacedItem[] => items.filter(({ id }) => !id.includes(':'));

/** What feeds the rails: the jumpers and leads of the board, and the links between pieces of a rail. */
export function railWires(plan: Plan, sheets: Sheets): { readonly jumpers: readonly Jumper[]; readonly leads: readonly Lead[] } {
  const holes = holePlan(plan, sheets);
  const board = boardOf(plan, sheets);
  if (!holes || !board) return { jumpers: [], leads: [] };
  // The supply pins of a bare chip have steps of their own.
  const isOwn = (one: JumperFor) => !board.sheet.chipCircuit && 'item' in one && one.item === 'board';
  const isFeed = ({ for: one, to }: Jumper) => 'link' in one || (isOwn(one) && to.at === 'rail');
  return {
    jumpers: holes.jumpers.filter(isFeed),
    leads: holes.leads.filter(({ end, to }) => end.module === 'board' && to.at === 'hole' && to.hole.at === 'rail'),
  };
}
