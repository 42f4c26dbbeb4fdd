import { atOrThrow } from '../../collections/orThrow';
import { orderByPairs } from './orderByPairs';

/** What a conductor does in one channel: it has a trunk down the channel, with a branch to each terminal and pin. */
export interface Trunk {
  readonly conductor: string;
  /** Heights of the branches to modules and to board pins. */
  readonly modules: readonly number[];
  readonly pins: readonly number[];
  /** The trunk goes on beyond the modules, to the other channel. */
  readonly leaves?: 'above' | 'below';
}

export interface Span {
  readonly from: number;
  readonly to: number;
}

/** The part of the channel that a trunk takes. */
export function spanOf({ modules, pins, leaves }: Trunk): Span {
  const ys = [...modules, ...pins];
  return { from: leaves === 'above' ? -Infinity : Math.min(...ys), to: leaves === 'below' ? Infinity : Math.max(...ys) };
}

const crosses = (y: number, { from, to }: Span): boolean => y > from && y < to;

/** Crossings of two trunks, the first of which is nearer to the modules. */
export function crossingsOf(near: Trunk, far: Trunk): number {
  const [nearSpan, farSpan] = [spanOf(near), spanOf(far)];
  return far.modules.filter((y) => crosses(y, nearSpan)).length + near.pins.filter((y) => crosses(y, farSpan)).length;
}

/** Pixels that two trunks of one lane keep between their ends. */
const APART = 10;

/** Lanes of the trunks of a channel, counted from the modules: in the order with the fewest crossings, and those that do not meet in one lane. */
export function lanesOf(trunks: readonly Trunk[]): ReadonlyMap<string, number> {
  const order = orderByPairs(
    trunks.length,
    (near, far) =>
      crossingsOf(atOrThrow(trunks, near), atOrThrow(trunks, far)) + 1e-6 * lean(atOrThrow(trunks, near), atOrThrow(trunks, far)),
  );
  const lanes: { readonly span: Span; readonly lane: number }[] = [];
  return new Map(
    order.map((at) => {
      const span = spanOf(atOrThrow(trunks, at));
      const meeting = lanes.filter((other) => span.from < other.span.to + APART && other.span.from < span.to + APART);
      const lane = Math.max(-1, ...meeting.map((other) => other.lane)) + 1;
      lanes.push({ span, lane });
      return [atOrThrow(trunks, at).conductor, lane];
    }),
  );
}

/** Between orders that cross equally often, the trunk with more branches to modules is nearer to these: less wire in all. */
const lean = (near: Trunk, far: Trunk): number => {
  const weight = ({ modules, pins }: Trunk) => modules.length - pins.length;
  return weight(far) > weight(near) ? 1 : 0;
};

/** Tracks between the channels, counted from the board: a trunk that goes on to a farther track crosses nearer tracks that span its lane.
 *  @param lanes positions of the trunks in the left and the right channel, in pixels */
export function tracksOf(lanes: readonly { readonly left: number; readonly right: number }[]): readonly number[] {
  const spans = (outer: { left: number; right: number }, x: number) => x > outer.left && x < outer.right;
  const order = orderByPairs(lanes.length, (near, far) => {
    const [a, b] = [atOrThrow(lanes, near), atOrThrow(lanes, far)];
    return Number(spans(a, b.left)) + Number(spans(a, b.right));
  });
  const tracks = lanes.map(() => 0);
  order.forEach((item, track) => (tracks[item] = track));
  return tracks;
}
