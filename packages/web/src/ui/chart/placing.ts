/** A scale as the roof: where a value lies, and the ticks that are labelled. */
export interface Scale {
  readonly min: number;
  readonly max: number;
  readonly log: boolean;
  readonly ticks: readonly { readonly at: number; readonly label?: string }[];
}

/** Where a value lies on a scale of some width, and back; what lies outside sticks to the end. */
export function placing(scale: Scale, width: number): { x: (value: number) => number; value: (x: number) => number } {
  const f = scale.log ? Math.log : (v: number) => v;
  const g = scale.log ? Math.exp : (v: number) => v;
  const [low, high] = [f(scale.min), f(scale.max)];
  const clamp = (v: number) => Math.min(width, Math.max(0, v));
  return {
    x: (value) => clamp(((f(Math.max(value, scale.log ? Number.MIN_VALUE : value)) - low) / (high - low)) * width),
    value: (x) => g(low + (clamp(x) / width) * (high - low)),
  };
}

/** Height of a row, in pixels; of one whose marks have names it is larger. */
export const ROW_HEIGHT = 24;
export const NAMED_ROW_HEIGHT = 34;
/** Where the name of a mark has its base line, from the middle of its row. */
export const NAME_ABOVE = -7;
export const NAME_BELOW = 13;
