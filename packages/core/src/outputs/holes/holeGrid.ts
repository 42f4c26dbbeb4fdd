import { type Half, type Hole, rowOnBoard } from './breadboard';
import type { HolePlan } from './holePlan';

export const LEFT = 52;
const RIGHT = 20;
/** From hole to hole of a strip, and from the roof to the first. */
export const HOLE = 19;
export const FIRST = 24;
/** Above the roof of a–e: titles, labels, rails, row numbers. */
export const ABOVE = { title: 17, bracket: 26, plus: 108, minus: 121, roof: 153 } as const;
const BETWEEN = 58;
/** Below the last hole of f–j. */
export const BELOW = { minus: 25, plus: 38, label: 56, bracket: 132, title: 152, end: 170 } as const;
/** Width of a letter of a title. */
export const LETTER = 7.6;

/** Pixels from row to row. */
const pitchOf = (rows: number): number => (rows === 63 ? 18.2 : 26);

/** Where everything of a breadboard lies in the picture. */
export class Grid {
  readonly pitch: number;
  readonly blockHeight = ABOVE.roof + FIRST + 4 * HOLE + BETWEEN + FIRST + 4 * HOLE + BELOW.end;

  constructor(private readonly plan: HolePlan) {
    this.pitch = pitchOf(plan.breadboard.rows);
  }

  /** Of one board. */
  get rows(): number {
    return this.plan.breadboard.rows;
  }

  get width(): number {
    return LEFT + (this.plan.breadboard.rows - 1) * this.pitch + RIGHT;
  }

  get height(): number {
    return this.blockHeight * this.plan.breadboard.boards;
  }

  x(row: number): number {
    return LEFT + (rowOnBoard(this.plan.breadboard, row)[1] - 1) * this.pitch;
  }

  top(row: number): number {
    return rowOnBoard(this.plan.breadboard, row)[0] * this.blockHeight;
  }

  roof(half: Half, row: number): number {
    return this.top(row) + ABOVE.roof + (half === 'ae' ? 0 : FIRST + 4 * HOLE + BETWEEN);
  }

  rail(half: Half, sign: '+' | '−', row: number): number {
    if (half === 'ae') return this.top(row) + (sign === '+' ? ABOVE.plus : ABOVE.minus);
    return this.below(row) + (sign === '+' ? BELOW.plus : BELOW.minus);
  }

  /** The last hole of f–j. */
  below(row: number): number {
    return this.roof('fj', row) + FIRST + 4 * HOLE;
  }

  at(hole: Hole): readonly [number, number] {
    return [
      this.x(hole.row),
      hole.at === 'rail' ? this.rail(hole.half, hole.sign, hole.row) : this.roof(hole.half, hole.row) + FIRST + hole.column * HOLE,
    ];
  }
}
