import type { WireColour } from '../../plan/plan';

/** What a line, circle or text of the picture is; a page and a file draw each in their own way. */
export type HoleRole =
  | 'roof'
  | 'string'
  | 'free'
  | 'leg'
  | 'wire'
  | 'lead'
  /** The wire from a strip to a rail: it would hide too much, so that it is shown only where it is marked. */
  | 'rail-wire'
  | 'sign'
  | 'rail'
  | 'bracket'
  | 'bridge'
  | 'symbol'
  | 'title'
  | 'label'
  | 'number'
  | 'letter'
  | 'value';

/** What a shape is about. */
export interface Tagged {
  readonly role: HoleRole;
  readonly colour?: WireColour;
  /** What it belongs to: an item, a net, a strip. */
  readonly item?: string;
  readonly net?: string;
  readonly strip?: string;
}

export type HoleShape = Tagged &
  (
    | { readonly is: 'line'; readonly points: readonly (readonly [number, number])[] }
    | { readonly is: 'circle'; readonly x: number; readonly y: number; readonly r: number }
    | { readonly is: 'rect'; readonly x: number; readonly y: number; readonly w: number; readonly h: number }
    | {
        readonly is: 'text';
        readonly x: number;
        readonly y: number;
        readonly text: string;
        readonly anchor: 'start' | 'middle' | 'end';
        readonly turn: number;
      }
  );
