import { boardOf } from '../plan/edit';
import { type Driver, type Plan, sameEnd, type WireColour, type WireEnd } from '../plan/plan';
import type { ChipComponent } from '../sheets/boardSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type BuildList, buildList, type BuildResistor } from './buildList';
import { type ChipCircuit, chipCircuitOf } from './chipCircuit';

/** The bill of materials: parts, passive components, transistors, crystals and connectors, identical ones counted. */
export interface Bill {
  readonly parts: readonly { readonly title: string; readonly count: number; readonly helper: boolean }[];
  readonly resistors: readonly { readonly ohms: number; readonly count: number }[];
  readonly capacitors: readonly { readonly farads: number; readonly count: number }[];
  readonly transistors: readonly { readonly kind: Driver['kind']; readonly count: number }[];
  readonly crystals: readonly { readonly hertz: number; readonly count: number }[];
  /** Wires to run, those to junctions and supply rails included, by colour. */
  readonly jumpers: readonly { readonly colour: WireColour; readonly count: number }[];
  readonly connectors: readonly { readonly title: string; readonly count: number }[];
}

function counted<T>(items: readonly T[]): readonly (readonly [T, number])[] {
  const counts = new Map<T, number>();
  for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1);
  return [...counts];
}

/** The colours of all wires of a build: one for each connection, one from each junction to the board, one for each supply pin of a bare
 *  chip. */
function jumperColours({ supplies, signals, joints }: BuildList, chip: ChipCircuit | undefined): readonly WireColour[] {
  const wires = [...supplies, ...signals];
  const bySupply = (end: WireEnd): WireColour => (end.to === 'ground' ? 'black' : 'red');
  return [
    ...wires.map(({ colour }) => colour),
    ...joints.map(({ end }) => wires.find((wire) => sameEnd(wire.end, end))?.colour ?? bySupply(end)),
    ...(chip?.supplies ?? []).flatMap(({ end, pins }) => pins.map(() => bySupply(end))),
  ];
}

/** Resistors of one list entry. */
function ohmsOf(resistor: BuildResistor): readonly number[] {
  if (resistor.do === 'cut') return [];
  if (resistor.do === 'ladder') return [resistor.ladder.pull, ...resistor.ladder.row];
  if (resistor.do === 'driver') return [resistor.driver.ohms];
  // One for each of the two lines.
  return resistor.do === 'add' ? [resistor.ohms, resistor.ohms] : [resistor.ohms];
}

/** The bill of a plan; undefined where the board's sheet is gone. */
export function billOf(plan: Plan, sheets: Sheets): Bill | undefined {
  const list = buildList(plan, sheets);
  const board = boardOf(plan, sheets);
  if (!list || !board) return undefined;
  const chip = chipCircuitOf(plan, board);
  const ofChip = (kind: ChipComponent['kind']) => (chip?.components ?? []).flatMap((one) => (one.kind === kind ? [one.value] : []));
  const parts = plan.placements.flatMap((p) => (p.onBoard ? [] : (partSheet(sheets, p.sheet)?.sheet ?? [])));
  return {
    parts: counted(parts).map(([part, count]) => ({ title: part.title, count, helper: part.family === 'helper' })),
    resistors: counted([...list.resistors.flatMap(ohmsOf), ...ofChip('resistor')])
      .map(([ohms, count]) => ({ ohms, count }))
      .toSorted((a, b) => a.ohms - b.ohms),
    capacitors: counted([...list.capacitors.map((one) => one.farads), ...ofChip('capacitor')])
      .map(([farads, count]) => ({ farads, count }))
      .toSorted((a, b) => a.farads - b.farads),
    transistors: counted(list.resistors.flatMap((one) => (one.do === 'driver' ? [one.driver.kind] : []))).map(([kind, count]) => ({
      kind,
      count,
    })),
    crystals: counted(ofChip('crystal')).map(([hertz, count]) => ({ hertz, count })),
    jumpers: counted(jumperColours(list, chip))
      .map(([colour, count]) => ({ colour, count }))
      .toSorted((a, b) => b.count - a.count),
    connectors: counted((chip?.connectors ?? []).map(({ title }) => title)).map(([title, count]) => ({ title, count })),
  };
}
