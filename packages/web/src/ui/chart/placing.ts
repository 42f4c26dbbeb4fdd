import { scaleLinear, scaleLog } from 'd3-scale';

/** A scale as the roof: where a value lies, and the ticks that are labelled. */
export interface Scale {
  readonly min: number;
  readonly max: number;
  readonly log: boolean;
  readonly ticks: readonly { readonly at: number; readonly label?: string }[];
}

/** Where a value lies on a scale of some width, and back; what lies outside sticks to the end. */
export function placing({ min, max, log }: Scale, width: number): { x: (value: number) => number; value: (x: number) => number } {
  const scale = (log ? scaleLog() : scaleLinear()).domain([min, max]).range([0, width]).clamp(true);
  return {
    // A logarithmic scale has no place for nothing or less.
    x: (value) => scale(log ? Math.max(value, min) : value),
    value: (x) => scale.invert(x),
  };
}

/** Height of a row, in pixels; of one whose marks have names it is larger. */
export const ROW_HEIGHT = 24;
export const NAMED_ROW_HEIGHT = 34;
/** Where the name of a mark has its base line, from the middle of its row. */
export const NAME_ABOVE = -7;
export const NAME_BELOW = 13;
