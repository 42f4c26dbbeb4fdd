import { findOrThrow } from '../collections/orThrow';
import type { ChipComponent } from '../sheets/boardSheet';
import type { IndexedBoard } from '../sheets/sheetIndex';
import type { Plan, WireEnd } from '../plan/plan';
import { type BoardPosition, positionsOf } from './boardPosition';

/** A pin of the chip with its place on the header. */
export interface ChipEnd {
  readonly label: string;
  readonly at: BoardPosition | undefined;
}

/** Supply pins of a bare chip that go to one rail, or to ground. */
export interface ChipSupply {
  readonly end: WireEnd;
  readonly pins: readonly ChipEnd[];
  /** What supplies the rail. */
  readonly feed: string | undefined;
}

/** A component between two pins of the chip. */
export interface PlacedComponent extends Omit<ChipComponent, 'ends'> {
  readonly ends: readonly [ChipEnd, ChipEnd];
}

/** A connector with the chip pin behind each of its pins. */
export interface PlacedConnector {
  readonly name: string;
  readonly title: string;
  readonly pins: readonly { readonly number: number; readonly label: string; readonly end: ChipEnd | undefined }[];
}

/** What to build around a bare chip before any part is connected. */
export interface ChipCircuit {
  readonly supplies: readonly ChipSupply[];
  readonly components: readonly PlacedComponent[];
  readonly connectors: readonly PlacedConnector[];
  readonly settings: readonly string[];
}

function supplies(board: IndexedBoard): readonly ChipSupply[] {
  const ends: readonly WireEnd[] = [{ to: 'ground' }, ...board.sheet.rails.list.map(({ id }) => ({ to: 'rail' as const, rail: id }))];
  return ends.flatMap((end) => {
    const pins = positionsOf(board, end).map((at) => ({ label: at.label, at }));
    const feed = end.to === 'rail' ? findOrThrow(board.sheet.rails.list, ({ id }) => id === end.rail).feed : undefined;
    return pins.length > 0 ? [{ end, pins, feed }] : [];
  });
}

/** The circuit of a bare chip; undefined for a board that carries its own.
 *  A component at a signal pin, such as the pull-up of a reset input that can be a port, is left out once the plan wires that pin.
 *  @example chipCircuitOf(plan, board)?.components[0] // { name: 'C1', kind: 'capacitor', value: 1e-7, … } */
export function chipCircuitOf(plan: Plan, board: IndexedBoard): ChipCircuit | undefined {
  const { chipCircuit, pins } = board.sheet;
  if (!chipCircuit) return undefined;
  const byId = new Map(pins.list.map((pin) => [pin.id, pin]));
  const endOf = (id: string): ChipEnd => {
    const [at] = positionsOf(board, { to: 'pin', pin: id });
    return { label: byId.get(id)?.label ?? id, at };
  };
  const used = new Set(Object.values(plan.wires).flatMap(({ end }) => (end.to === 'pin' ? [end.pin] : [])));
  const isFree = (id: string) => byId.get(id)?.kind !== 'io' || !used.has(id);
  return {
    supplies: supplies(board),
    components: chipCircuit.components
      .filter(({ ends }) => ends.every(isFree))
      .map((one) => ({ ...one, ends: [endOf(one.ends[0]), endOf(one.ends[1])] })),
    connectors: (chipCircuit.connectors ?? []).map((one) => ({
      ...one,
      pins: one.pins.map(({ number, label, pin }) => ({ number, label, end: pin === undefined ? undefined : endOf(pin) })),
    })),
    settings: chipCircuit.settings,
  };
}
