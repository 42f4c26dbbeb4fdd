import type { Sourced } from './source';

/** What stands out on the front of a board or module. */
export const FEATURES = [
  'usb',
  'power jack',
  'antenna',
  'radio module',
  'chip',
  'hole',
  'button',
  'display',
  'network jack',
  'slot',
  'cylinder',
] as const;
export type FeatureKind = (typeof FEATURES)[number];

/** A feature with its upper left corner and its size, in millimetres. A hole has its centre there, and its diameter twice. A cylinder is what
 *  stands upright and is round from above: a metal can, a transducer, the cap of a stick. */
export interface ShapeFeature {
  readonly what: FeatureKind;
  readonly atMm: readonly [number, number];
  readonly sizeMm: readonly [number, number];
  readonly label?: string;
}

export const DIRECTIONS = ['down', 'up', 'right', 'left'] as const;

/** Where the pins of a header, or terminals of a part in their order, lie: the first one in millimetres, the others 2.54 mm apart. */
export interface ShapeRow {
  readonly header?: string;
  readonly terminals?: readonly string[];
  readonly firstMm: readonly [number, number];
  readonly towards: (typeof DIRECTIONS)[number];
}

/** Distance of the pins of headers and of the legs of chips, in millimetres. */
export const PITCH_MM = 2.54;

const STEPS = { down: [0, 1], up: [0, -1], right: [1, 0], left: [-1, 0] } as const;

/** Where a pin of a row lies, in millimetres. @param at places after the first pin */
export function placeInRow({ firstMm: [x, y], towards }: Pick<ShapeRow, 'firstMm' | 'towards'>, at: number): readonly [number, number] {
  const [dx, dy] = STEPS[towards];
  return [x + dx * at * PITCH_MM, y + dy * at * PITCH_MM];
}

export const MOUNTS = ['leads', 'double row', 'irregular'] as const;
export const BODIES = ['board', 'dip', 'leads'] as const;

/** The front of a board or part, from its upper left corner. The first end of its headers is above, so that left is left. */
export interface Shape {
  /** A circuit board; a chip with two rows of legs, pin 1 at the upper left; a component on two or three leads. */
  readonly body: (typeof BODIES)[number];
  readonly widthMm?: number;
  readonly heightMm?: number;
  readonly rows?: readonly ShapeRow[];
  /** Why it cannot be plugged into a breadboard: it is connected by leads, plugs or screws; its pins are in two rows side by side; or its
   *  legs are not 2.54 mm apart. */
  readonly mount?: (typeof MOUNTS)[number];
  readonly features?: readonly ShapeFeature[];
  /** Where the labels of its pins are printed, if not on the front. */
  readonly labelledOn?: 'rear';
  /** From one to the other of two rows of pins or legs, where the drawing does not state it. */
  readonly rowsMm?: number;
}

export type SourcedShape = Sourced & Shape;
