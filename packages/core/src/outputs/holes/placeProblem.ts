import type { HolePlace } from '../../plan/plan';

/** Rows in one lane, which is a half of a breadboard: those with something in them, and those that the body lies over. */
export interface Span {
  readonly lane: number;
  readonly strips: readonly [number, number];
  readonly body: readonly [number, number];
}

/** One way in which an item lies, with rows relative to its first leg. */
export interface Variant {
  readonly side: Exclude<HolePlace['side'], 'off'>;
  /** From its rows to those of the plan: rows of the second board of two side by side come after those of the first. */
  readonly rowOffset: number;
  readonly spans: readonly Span[];
  /** Strips of nets that are joined by wires from strip to strip. */
  readonly points: readonly { readonly net: number; readonly row: number; readonly lane: number }[];
  /** Length of the wires that are as long wherever the item lies: those to the rails. */
  readonly fixedLength: number;
}

export interface Placeable {
  readonly id: string;
  readonly variants: readonly Variant[];
  /** Where it lies, if that is given. */
  readonly at?: { readonly variant: number; readonly row: number };
}

export interface PlaceProblem {
  /** Of each lane, how far it is across from the first one, in pitches. */
  readonly lanes: readonly number[];
  /** Rows along the lanes. */
  readonly rows: number;
  /** Rows of one of the breadboards: nothing is plugged across two of them. */
  readonly rowsPerBoard: number;
  readonly items: readonly Placeable[];
  readonly nets: number;
}

export interface PlacedVariant {
  readonly item: number;
  readonly variant: number;
  readonly row: number;
}

export interface Placement {
  readonly placed: readonly PlacedVariant[];
  /** What is made as small as possible, in pitches: see `spanOf`. */
  readonly span: number;
  /** No packed placement has a smaller one. */
  readonly bound: number;
  readonly proved: boolean;
}

/** Rows that stay free between two items, for fingers. */
export const GAP = 2;
/** Rows that stay free between two bodies: the holes of the rails there are reached. */
export const BODY_GAP = 1;
/** Rows, moved by some. */
export const shifted = ([from, to]: readonly [number, number], row: number): readonly [number, number] => [from + row, to + row];
const isApart = (a: readonly [number, number], b: readonly [number, number], gap: number): boolean =>
  a[0] > b[1] + gap || b[0] > a[1] + gap;
const union = ({ strips, body }: Pick<Span, 'strips' | 'body'>): readonly [number, number] => [
  Math.min(strips[0], body[0]),
  Math.max(strips[1], body[1]),
];

/** Whether two items of one lane leave each other room: two rows between their legs, one between bodies. */
export function haveRoom(a: Span, rowA: number, b: Span, rowB: number): boolean {
  return (
    a.lane !== b.lane ||
    (isApart(shifted(a.strips, rowA), shifted(b.strips, rowB), GAP) && isApart(shifted(union(a), rowA), shifted(union(b), rowB), BODY_GAP))
  );
}

/** The first of a variant's rows, relative to its first leg. */
export const startOf = ({ spans }: Variant): number => Math.min(...spans.map(({ strips }) => strips[0]));
const endOf = ({ spans }: Variant): number => Math.max(...spans.map(({ strips }) => strips[1]));

/** Whether all strips of a variant are on one board of the breadboard. */
export function isOnBreadboard(
  { rows, rowsPerBoard }: Pick<PlaceProblem, 'rows' | 'rowsPerBoard'>,
  variant: Variant,
  row: number,
): boolean {
  const [first, last] = [startOf(variant) + row, endOf(variant) + row];
  return first >= 1 && last <= rows && Math.floor((first - 1) / rowsPerBoard) === Math.floor((last - 1) / rowsPerBoard);
}

/** Occupied rows of one lane, absolute: by strips, and by strips and bodies. */
export interface Taken {
  readonly strips: readonly [number, number];
  readonly all: readonly [number, number];
}

/** A variant with what the search needs of it at hand. */
export interface Ready {
  readonly variant: Variant;
  readonly start: number;
  readonly end: number;
  readonly spans: readonly (Taken & { readonly lane: number })[];
  /** Lanes as bits. */
  readonly points: readonly { readonly net: number; readonly row: number; readonly lane: number }[];
}

/** A variant made ready for the search. */
export const ready = (variant: Variant): Ready => ({
  variant,
  start: startOf(variant),
  end: endOf(variant),
  spans: variant.spans.map((span) => ({ lane: span.lane, strips: span.strips, all: union(span) })),
  points: variant.points.map(({ net, row, lane }) => ({ net, row, lane: 1 << lane })),
});
