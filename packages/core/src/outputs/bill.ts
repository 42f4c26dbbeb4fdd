import { boardOf } from '../plan/edit';
import { type Driver, DRIVER_KINDS, type Plan, sameEnd, type WireColour, type WireEnd } from '../plan/plan';
import { type IndexedBoard, partSheet, type Sheets } from '../sheets/sheetIndex';
import { type BoardPosition, positionsOf } from './boardPosition';
import { type BuildList, buildList, type BuildWire } from './buildList';
import { type ChipCircuit, chipCircuitOf } from './chipCircuit';

/** Equal components with their reference designators. */
interface Named {
  readonly count: number;
  readonly names: readonly string[];
}

/** A wire to run: its colour, and the end that the header of the board takes; undefined on a breadboard, and where its sheet does not say. */
export interface Jumper {
  readonly colour: WireColour;
  readonly boardEnd: 'male' | 'female' | undefined;
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
  /** Wires to run, those to junctions and supply rails included, by colour and by the end at the board. */
  readonly jumpers: readonly (Jumper & { readonly count: number })[];
  readonly connectors: readonly { readonly title: string; readonly count: number }[];
}

function counted<T>(items: readonly T[]): readonly (readonly [T, number])[] {
  const counts = new Map<T, number>();
  for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1);
  return [...counts];
}

/** Whether a wire is cut in two by components: one piece to each side of them. */
const isCut = ({ end, components }: BuildWire): boolean => components.length > 0 && end.to !== 'trimmer' && end.to !== 'divider';

/** What a header of the board takes: pins in two rows stand free, those in one row are in a breadboard. */
function boardEnd({ sheet }: IndexedBoard, at: readonly BoardPosition[]): Jumper['boardEnd'] {
  const header = sheet.headers.list.find(({ id }) => id === at[0]?.header);
  if (header?.contact === 'socket') return 'male';
  return header?.contact === 'pin' && header.rows === 2 ? 'female' : undefined;
}

/** All wires of a build: one for each connection, two where a component is in it, one from each junction to the board, one
 *  for each leg of a component at a supply or ground, one for each supply pin of a bare chip, whose rails components reach by themselves. */
function jumpersOf(
  board: IndexedBoard,
  { supplies, signals, joints, components }: BuildList,
  chip: ChipCircuit | undefined,
): readonly Jumper[] {
  const wires = [...supplies, ...signals];
  const bySupply = (end: WireEnd): WireColour => (end.to === 'ground' ? 'black' : 'red');
  const legs = chip ? [] : components.flatMap(({ ends }) => ends.map(({ at }) => at));
  const atEnd = (end: WireEnd) => (joints.some((joint) => sameEnd(joint.end, end)) ? undefined : boardEnd(board, positionsOf(board, end)));
  return [
    ...wires.flatMap((wire): Jumper[] => {
      const jumper = { colour: wire.colour, boardEnd: wire.joined ? undefined : boardEnd(board, wire.at) };
      return isCut(wire) ? [jumper, { colour: wire.colour, boardEnd: undefined }] : [jumper];
    }),
    ...legs.flatMap((at): Jumper[] => (at.to === 'rail' || at.to === 'ground' ? [{ colour: bySupply(at), boardEnd: atEnd(at) }] : [])),
    ...joints.map(({ end, at }): Jumper => ({
      colour: wires.find((wire) => sameEnd(wire.end, end))?.colour ?? bySupply(end),
      boardEnd: boardEnd(board, at),
    })),
    ...(chip?.supplies ?? []).flatMap(({ end, pins }) => pins.map((): Jumper => ({ colour: bySupply(end), boardEnd: undefined }))),
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
    jumpers: counted(jumpersOf(board, list, chip).map(({ colour, boardEnd: own }) => `${colour} ${own ?? ''}`))
      .map(([key, count]) => {
        const [colour, own] = key.split(' ') as [WireColour, 'male' | 'female' | ''];
        return { colour, boardEnd: own === '' ? undefined : own, count };
      })
      .toSorted((a, b) => b.count - a.count),
    connectors: counted((chip?.connectors ?? []).map(({ title }) => title)).map(([title, count]) => ({ title, count })),
  };
}
