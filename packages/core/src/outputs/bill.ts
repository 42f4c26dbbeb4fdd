import { boardOf } from '../plan/edit';
import { type Driver, DRIVER_KINDS, type Plan, sameEnd, type WireColour, type WireEnd } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type BuildList, buildList, type BuildWire } from './buildList';
import { type ChipCircuit, chipCircuitOf } from './chipCircuit';

/** Equal components with their reference designators. */
interface Named {
  readonly count: number;
  readonly names: readonly string[];
}

/** The bill of materials: parts, passive components, transistors, crystals and connectors, identical ones counted. */
export interface Bill {
  readonly parts: readonly { readonly title: string; readonly count: number; readonly helper: boolean }[];
  readonly resistors: readonly (Named & { readonly ohms: number })[];
  readonly trimmers: readonly (Named & { readonly ohms: number })[];
  readonly capacitors: readonly (Named & { readonly farads: number })[];
  readonly transistors: readonly (Named & { readonly kind: Driver['kind'] })[];
  readonly diodes: readonly Named[];
  readonly crystals: readonly (Named & { readonly hertz: number })[];
  /** Wires to run, those to junctions and supply rails included, by colour. */
  readonly jumpers: readonly { readonly colour: WireColour; readonly count: number }[];
  readonly connectors: readonly { readonly title: string; readonly count: number }[];
}

function counted<T>(items: readonly T[]): readonly (readonly [T, number])[] {
  const counts = new Map<T, number>();
  for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1);
  return [...counts];
}

/** Whether a wire is cut in two by components: one piece to each side of them. */
const isCut = ({ end, components }: BuildWire): boolean => components.length > 0 && end.to !== 'trimmer' && end.to !== 'divider';

/** The colours of all wires of a build: one for each connection, two where a component is in it, one from each junction to the board, one
 *  for each leg of a component at a supply or ground, one for each supply pin of a bare chip, whose rails components reach by themselves. */
function jumperColours({ supplies, signals, joints, components }: BuildList, chip: ChipCircuit | undefined): readonly WireColour[] {
  const wires = [...supplies, ...signals];
  const bySupply = (end: WireEnd): WireColour => (end.to === 'ground' ? 'black' : 'red');
  const legs = chip ? [] : components.flatMap(({ ends }) => ends.map(({ at }) => at));
  return [
    ...wires.flatMap((wire) => (isCut(wire) ? [wire.colour, wire.colour] : [wire.colour])),
    ...legs.flatMap((at) => (at.to === 'rail' || at.to === 'ground' ? [bySupply(at)] : [])),
    ...joints.map(({ end }) => wires.find((wire) => sameEnd(wire.end, end))?.colour ?? bySupply(end)),
    ...(chip?.supplies ?? []).flatMap(({ end, pins }) => pins.map(() => bySupply(end))),
  ];
}

/** One component: kind, value in its unit, reference designator. */
interface BillItem {
  readonly name: string;
  readonly kind: string;
  readonly value: number;
}

/** Components of a kind by value, smallest first. */
function grouped(items: readonly BillItem[], kind: string): readonly (Named & { readonly value: number })[] {
  const byValue = new Map<number, string[]>();
  for (const one of items) if (one.kind === kind) byValue.set(one.value, [...(byValue.get(one.value) ?? []), one.name]);
  return [...byValue].map(([value, names]) => ({ value, count: names.length, names })).toSorted((a, b) => a.value - b.value);
}

/** The bill of a plan; undefined where the board's sheet is gone. */
export function billOf(plan: Plan, sheets: Sheets): Bill | undefined {
  const list = buildList(plan, sheets);
  const board = boardOf(plan, sheets);
  if (!list || !board) return undefined;
  const chip = chipCircuitOf(plan, board);
  const items: readonly BillItem[] = [
    ...list.components.map(({ name, kind, value, transistor }) => ({ name, kind: transistor?.kind ?? kind, value: value ?? 0 })),
    ...(chip?.components ?? []).map(({ name, kind, value }) => ({ name, kind, value })),
  ];
  const parts = plan.placements.flatMap((p) => (p.onBoard ? [] : (partSheet(sheets, p.sheet)?.sheet ?? [])));
  return {
    parts: counted(parts).map(([part, count]) => ({ title: part.title, count, helper: part.family === 'helper' })),
    resistors: grouped(items, 'resistor').map(({ value, ...rest }) => ({ ohms: value, ...rest })),
    trimmers: grouped(items, 'trimmer').map(({ value, ...rest }) => ({ ohms: value, ...rest })),
    capacitors: grouped(items, 'capacitor').map(({ value, ...rest }) => ({ farads: value, ...rest })),
    transistors: DRIVER_KINDS.flatMap((kind) => grouped(items, kind).map(({ count, names }) => ({ kind, count, names }))),
    diodes: grouped(items, 'diode'),
    crystals: grouped(items, 'crystal').map(({ value, ...rest }) => ({ hertz: value, ...rest })),
    jumpers: counted(jumperColours(list, chip))
      .map(([colour, count]) => ({ colour, count }))
      .toSorted((a, b) => b.count - a.count),
    connectors: counted((chip?.connectors ?? []).map(({ title }) => title)).map(([title, count]) => ({ title, count })),
  };
}
