import { firstOrThrow } from '../../collections/orThrow';
import type { Breadboard, HolePlace, Plan } from '../../plan/plan';
import { ACROSS, alongLane, type Half, HALVES, isSideBySide, laneOf, laneRows, lanesOf, otherHalf } from './breadboard';
import type { HoleInstance, HoleItem, RailUse, Strip } from './holeItems';
import type { Placeable, PlaceProblem, Span, Variant } from './placeProblem';

export type Side = Variant['side'];

/** Between a strip and the rail of its half, in pitches. */
const TO_RAIL = 3;

/** The sides on which an item can lie. */
export const sidesOf = ({ footprint }: HoleItem): readonly Side[] => (footprint.across ? ['across', 'turned'] : ['fj', 'ae']);

/** Where a strip of an item lies, relative to the first row of its legs; of what lies over two boards, whether on the second of them. */
interface StripAt {
  readonly row: number;
  readonly half: Half;
  readonly isNext?: boolean;
}

/** Where a strip of an item lies. In a–e, or turned, the order of its legs is the other way round. */
export function stripAt({ length, footprint }: HoleItem, { row, half }: Pick<Strip, 'row' | 'half'>, side: Side): StripAt {
  if (footprint.overTwo) {
    const isNext = (half === 'fj') === (side === 'across');
    return { row: side === 'across' ? row : length - 1 - row, half: isNext ? 'ae' : 'fj', isNext };
  }
  switch (side) {
    case 'fj':
      return { row, half: 'fj' };
    case 'ae':
      return { row: length - 1 - row, half: 'ae' };
    case 'across':
      return { row, half };
    case 'turned':
      return { row: length - 1 - row, half: otherHalf(half) };
  }
}

/** The rows under the body, on one side or turned. */
export function bodyAt({ length, footprint: { body } }: HoleItem, side: Side): readonly [number, number] {
  return side === 'ae' || side === 'turned' ? [length - 1 - body[1], length - 1 - body[0]] : body;
}

/** @param laneIn the lane of a strip */
function spansOf(item: HoleItem, side: Side, laneIn: (strip: StripAt) => number): readonly Span[] {
  const body = bodyAt(item, side);
  const strips = item.strips.map((strip) => stripAt(item, strip, side));
  const halves = item.footprint.across ? HALVES : [side === 'ae' ? ('ae' as const) : ('fj' as const)];
  return halves.map((half): Span => {
    const own = strips.filter((strip) => strip.half === half);
    const rows = own.map(({ row }) => row);
    // Two rows of legs have their body over the holes between them.
    const under = item.footprint.across ? [Math.max(body[0], 0), Math.min(body[1], item.length - 1)] : [];
    return { lane: laneIn(firstOrThrow(own)), strips: [Math.min(...rows, ...under), Math.max(...rows, ...under)], body };
  });
}

/** Length of the wire from a strip to the rail of its net, which may be that of the other half alone. */
const railLength = (rail: RailUse, half: Half): number => (rail.halves.includes(half) ? TO_RAIL : TO_RAIL + ACROSS);

/** Whether an item can lie so. Between two boards side by side there is no room for a body that reaches over the rails. */
const isPossible = ({ footprint }: HoleItem, side: Side, board: number): boolean =>
  footprint.overTwo ? board === 0 : !footprint.overRails || side === (board === 0 ? 'ae' : 'fj');

/** A way to lie, and the row before the first one of its board. */
export type SideOption = Pick<Variant, 'side' | 'rowOffset'>;

/** How an item can lie on a breadboard. */
export function sideOptions(item: HoleItem, breadboard: Breadboard): readonly SideOption[] {
  if (!isSideBySide(breadboard)) return sidesOf(item).map((side) => ({ side, rowOffset: 0 }));
  return [0, 1].flatMap((board) =>
    sidesOf(item).flatMap((side) => (isPossible(item, side, board) ? [{ side, rowOffset: board * breadboard.rows }] : [])),
  );
}

function variantsOf(item: HoleItem, { nets }: HoleInstance, breadboard: Breadboard): readonly Variant[] {
  return sideOptions(item, breadboard).map(({ side, rowOffset }): Variant => {
    // Any row of the board will do to tell the lane.
    const laneIn = ({ half, isNext }: StripAt) => laneOf(breadboard, { half, row: 1 + rowOffset + (isNext ? breadboard.rows : 0) }).lane;
    const at = item.strips.map((strip) => ({ strip, ...stripAt(item, strip, side) }));
    const own = nets.flatMap((net, number) => at.filter(({ strip }) => net.strips.includes(strip)).map((one) => ({ ...one, net, number })));
    return {
      side,
      rowOffset,
      spans: spansOf(item, side, laneIn),
      points: own.flatMap(({ net, number, ...strip }) => (net.rail ? [] : [{ net: number, row: strip.row, lane: laneIn(strip) }])),
      fixedLength: own.reduce((sum, { net, half }) => sum + (net.rail ? railLength(net.rail, half) : 0), 0),
    };
  });
}

/** Where the board lies until the user puts it elsewhere: at one end. */
const BOARD_PLACE: HolePlace = { side: 'across', row: 1 };

/** The place that an item has in a plan: the board always has one. */
export const placeIn = (places: Plan['places'], item: string): HolePlace | undefined =>
  places[item] ?? (item === 'board' ? BOARD_PLACE : undefined);

/** Which variant of an item a place means, and its row along the lanes; undefined if the item cannot lie so. */
export function variantAt(
  breadboard: Breadboard,
  variants: readonly Variant[],
  { side, row }: HolePlace,
): { readonly variant: number; readonly row: number } | undefined {
  if (row === undefined) return undefined;
  const along = alongLane(breadboard, row);
  const variant = variants.findIndex((one) => one.side === side && one.rowOffset === row - along);
  return variant < 0 ? undefined : { variant, row: along };
}

/** The problem of placing what a breadboard is to hold. What has a place keeps it as far as `keeps` says. */
export function problemOf(instance: HoleInstance, breadboard: Breadboard, keeps: (item: string) => HolePlace | undefined): PlaceProblem {
  const items = instance.items.map((item): Placeable => {
    const variants = variantsOf(item, instance, breadboard);
    const kept = keeps(item.id);
    const at = kept && variantAt(breadboard, variants, kept);
    return { id: item.id, variants, ...(at ? { at } : {}) };
  });
  return { lanes: lanesOf(breadboard), rows: laneRows(breadboard), rowsPerBoard: breadboard.rows, items, nets: instance.nets.length };
}
