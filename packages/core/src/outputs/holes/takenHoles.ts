import { firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import type { Breadboard } from '../../plan/plan';
import { type Half, HALVES, hasRailHole, type Hole, pitchesBetween, railPiece, type RailSign, rowsOf } from './breadboard';
import type { HoleNet } from './holeItems';

/** A piece of a rail that has room: one hole at each end is kept for the link to the next piece. */
interface RailPiece {
  readonly half: Half;
  readonly sign: RailSign;
  /** Counted along the breadboard. */
  readonly number: number;
  readonly first: Hole;
  readonly last: Hole;
  readonly between: readonly Hole[];
}

/** A hole of a strip. */
export type StripHole = Extract<Hole, { readonly at: 'strip' }>;

/** Holes of a breadboard as they fill. */
export class Holes {
  readonly #taken = new Set<string>();
  readonly #coveredRails = new Set<string>();
  #pieces: readonly RailPiece[] = [];
  lacking = 0;

  constructor(private readonly breadboard: Breadboard) {}

  #key(hole: Hole): string {
    return hole.at === 'strip' ? `${hole.half} ${hole.row} ${hole.column}` : `${hole.half} ${hole.sign} ${hole.row}`;
  }

  take(hole: Hole): Hole {
    this.#taken.add(this.#key(hole));
    return hole;
  }

  isFree(hole: Hole): boolean {
    return !this.#taken.has(this.#key(hole));
  }

  /** The body of a module lies over the rails of its half. */
  coverRails(half: Half, [from, to]: readonly [number, number]): void {
    for (let row = from; row <= to; row += 1) this.#coveredRails.add(`${half} ${row}`);
  }

  /** Finds the pieces of the rails that have holes which no body covers; called when all bodies are there. */
  findRails(): void {
    this.#pieces = HALVES.flatMap((half) => (['+', '−'] as const).flatMap((sign) => this.#piecesOf(half, sign)));
  }

  #piecesOf(half: Half, sign: RailSign): readonly RailPiece[] {
    const byPiece = new Map<number, Hole[]>();
    for (let row = 1; row <= rowsOf(this.breadboard); row += 1) {
      if (!hasRailHole(this.breadboard, half, row) || this.#coveredRails.has(`${half} ${row}`)) continue;
      const piece = railPiece(this.breadboard, row);
      byPiece.set(piece, [...(byPiece.get(piece) ?? []), { at: 'rail', half, row, sign }]);
    }
    return [...byPiece].flatMap(([number, holes]): RailPiece[] =>
      holes.length < 3 ? [] : [{ half, sign, number, first: firstOrThrow(holes), last: lastOrThrow(holes), between: holes.slice(1, -1) }],
    );
  }

  /** The free rail holes of a net, the nearest first. */
  railHoles({ rail }: HoleNet, half: Half, row: number): readonly Hole[] {
    if (!rail) return [];
    const { sign, halves } = rail;
    const middle: Hole = { at: 'strip', half, row, column: 2 };
    const far = (hole: Hole) => pitchesBetween(this.breadboard, hole, middle);
    return this.#pieces
      .filter((piece) => piece.sign === sign && halves.includes(piece.half))
      .flatMap(({ between }) => between.filter((hole) => this.isFree(hole)))
      .toSorted((a, b) => far(a) - far(b));
  }

  /** The pieces of a half of a rail that something is in, along the breadboard. */
  usedPieces(half: Half, sign: RailSign): readonly RailPiece[] {
    return this.#pieces.filter((piece) => piece.half === half && piece.sign === sign && piece.between.some((hole) => !this.isFree(hole)));
  }
}
