import type { Breadboard, HolePlace, Plan } from '../../plan/plan';
import { ACROSS, type Half, HALVES, otherHalf, rowsOf } from './breadboard';
import type { HoleInstance, HoleItem, HoleNet, Strip } from './holeItems';
import type { Placeable, PlaceProblem, Span, Variant } from './placeProblem';

export type Side = Variant['side'];

/** Between a strip and the rail of its half, in pitches. */
const TO_RAIL = 3;

/** The sides on which an item can lie. */
export const sidesOf = ({ footprint }: HoleItem): readonly Side[] => (footprint.across ? ['across', 'turned'] : ['fj', 'ae']);

/** Where a strip of an item lies, relative to the first row of its legs. In a–e, or turned, the order of its legs is the other way round. */
export function stripAt(
  { length }: Pick<HoleItem, 'length'>,
  { row, half }: Pick<Strip, 'row' | 'half'>,
  side: Side,
): { readonly row: number; readonly half: Half } {
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

function spansOf(item: HoleItem, side: Side): readonly Span[] {
  const body = bodyAt(item, side);
  const strips = item.strips.map((strip) => stripAt(item, strip, side));
  const halves = item.footprint.across ? HALVES : [side === 'ae' ? ('ae' as const) : ('fj' as const)];
  return halves.map((half): Span => {
    const rows = strips.filter((strip) => strip.half === half).map(({ row }) => row);
    // Two rows of legs have their body over the holes between them.
    const under = item.footprint.across ? [Math.max(body[0], 0), Math.min(body[1], item.length - 1)] : [];
    return { half, strips: [Math.min(...rows, ...under), Math.max(...rows, ...under)], body };
  });
}

/** Length of the wire from a strip to the rail of its net, which may be that of the other half alone. */
const railLength = ({ rail }: HoleNet, half: Half): number => (rail!.halves.includes(half) ? TO_RAIL : TO_RAIL + ACROSS);

function variantsOf(item: HoleItem, { nets }: HoleInstance): readonly Variant[] {
  return sidesOf(item).map((side): Variant => {
    const at = item.strips.map((strip) => ({ strip, ...stripAt(item, strip, side) }));
    const own = nets.flatMap((net, number) => at.filter(({ strip }) => net.strips.includes(strip)).map((one) => ({ ...one, net, number })));
    return {
      side,
      spans: spansOf(item, side),
      points: own.flatMap(({ net, number, row, half }) => (net.rail ? [] : [{ net: number, row, half }])),
      fixedLength: own.reduce((sum, { net, half }) => sum + (net.rail ? railLength(net, half) : 0), 0),
    };
  });
}

/** Where the board lies until the user puts it elsewhere: at one end. */
const BOARD_PLACE: HolePlace = { side: 'across', row: 1 };

/** The place that an item has in a plan: the board always has one. */
export const placeIn = (places: Plan['places'], item: string): HolePlace | undefined =>
  places[item] ?? (item === 'board' ? BOARD_PLACE : undefined);

/** The problem of placing what a breadboard is to hold. What has a place keeps it as far as `keeps` says. */
export function problemOf(instance: HoleInstance, breadboard: Breadboard, keeps: (item: string) => HolePlace | undefined): PlaceProblem {
  const items = instance.items.map((item): Placeable => {
    const variants = variantsOf(item, instance);
    const kept = keeps(item.id);
    const variant = variants.findIndex(({ side }) => side === kept?.side);
    return { id: item.id, variants, ...(kept && variant >= 0 ? { at: { variant, row: kept.row! } } : {}) };
  });
  return { rows: rowsOf(breadboard), rowsPerBoard: breadboard.rows, items, nets: instance.nets.length };
}
