import { lastOrThrow, orThrow } from '../../collections/orThrow';
import type { Range } from '../../quantity/range';

/** Keys on one analog pin: a resistor from the pin to the supply, and from the pin to ground a row of resistors with a key at each
 *  joint, the first key straight at ground. Key n lets through the first n − 1 resistors of the row. */
export interface LadderInput {
  readonly keys: number;
  /** Values of resistors there are, in rising order. */
  readonly values: readonly number[];
  readonly tolerance: number;
  /** Tolerance of the resistor to the supply, where it is another. */
  readonly pullTolerance?: number;
}

export interface Ladder {
  /** From the pin to the supply, in ohms. */
  readonly pull: number;
  /** The row from ground outwards, one fewer than keys, in ohms. */
  readonly row: readonly number[];
  /** Where the pin can be with each key down, as shares of the supply. */
  readonly levels: readonly Range[];
  /** Smallest distance between two neighbours at their worst, and from the last key to no key, as a share of the supply. */
  readonly gap: number;
  /** Shares of the supply between the keys: below the first it is the first key; above the last it is none. */
  readonly thresholds: readonly number[];
}

export interface LadderSearch {
  /** The ladder whose smallest gap is largest; undefined where no values keep the keys apart at all. */
  readonly best: Ladder | undefined;
  /** No values of those there are do better. */
  readonly proved: boolean;
  readonly nodes: number;
}

export interface LadderOptions {
  /** Nodes after which the best found is taken. */
  readonly nodes?: number;
  readonly stop?: () => boolean;
  /** Hears how much of the search is done, from 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** Analog inputs follow sources of so much resistance, in ohms; most datasheets say 10 kΩ. */
const FOLLOWED = 10_000;

/** Maximum number of keys on one pin. */
export const LADDER_KEYS = { most: 16 } as const;

/** The corners of a ladder whose row has so much resistance against the pull, as shares of the supply. */
class Corners {
  readonly #low: number;
  readonly #high: number;

  constructor(tolerance: number, pull: number) {
    this.#low = (1 + pull) / (1 - tolerance);
    this.#high = (1 - pull) / (1 + tolerance);
  }

  /** @param x resistance of the row over that of the pull */
  low(x: number): number {
    return x / (x + this.#low);
  }

  high(x: number): number {
    return x === 0 ? 0 : x / (x + this.#high);
  }

  /** The least row whose low corner reaches a share. */
  rowFor(share: number): number {
    return (this.#low * share) / (1 - share);
  }

  /** The largest gap that so many more keys can keep above a key whose high corner is here, if any resistance could be had. */
  bound(high: number, more: number): number {
    if (more === 0) return 1 - high;
    let [from, to] = [0, (1 - high) / (more + 1)];
    for (let step = 0; step < 26; step += 1) {
      const gap = (from + to) / 2;
      if (this.#keeps(high, more, gap)) from = gap;
      else to = gap;
    }
    return to;
  }

  #keeps(high: number, more: number, gap: number): boolean {
    let at = high;
    for (let key = 0; key < more; key += 1) {
      const low = at + gap;
      if (low >= 1) return false;
      at = this.high(this.rowFor(low));
    }
    return 1 - at >= gap;
  }
}

/** Branch and bound over the pull and the row: a next resistor must keep more than the best gap so far, and leave the keys that are still to
 *  come as much, even if they could have any resistance. */
class Search {
  #best: { readonly pull: number; readonly row: readonly number[]; readonly gap: number } | undefined;
  #nodes = 0;
  #stopped = false;
  readonly #corners: Corners;

  constructor(
    private readonly input: LadderInput,
    private readonly options: LadderOptions,
  ) {
    this.#corners = new Corners(input.tolerance, input.pullTolerance ?? input.tolerance);
  }

  run(): LadderSearch {
    const { keys, values } = this.input;
    // A quick ladder for each pull first: what is good early cuts most.
    for (const pull of values) for (let part = 20; part > 4; part -= 1) this.#greedy(pull, (this.#corners.bound(0, keys - 1) * part) / 20);
    for (const [at, pull] of values.entries()) {
      // A search that is cut off has its nodes for an end.
      this.options.onProgress?.(Math.max(at / values.length, this.#nodes / (this.options.nodes ?? Infinity)));
      this.#descend(pull, 0, 0, [], Infinity);
    }
    this.options.onProgress?.(1);
    return { best: this.#best && this.#ladder(), proved: !this.#stopped, nodes: this.#nodes };
  }

  #take(pull: number, row: readonly number[], gap: number): void {
    if (this.#best && gap <= this.#best.gap) return;
    this.#best = { pull, row: [...row], gap };
  }

  /** Each time the least resistor that keeps a gap. */
  #greedy(pull: number, gap: number): void {
    let sum = 0;
    let least = Infinity;
    const row: number[] = [];
    for (let key = 1; key < this.input.keys; key += 1) {
      const high = this.#corners.high(sum / pull);
      if (high + gap >= 1) return;
      const wanted = this.#corners.rowFor(high + gap) * pull - sum;
      const value = this.input.values.find((one) => one >= wanted);
      if (value === undefined) return;
      sum += value;
      row.push(value);
      least = Math.min(least, this.#corners.low(sum / pull) - high);
    }
    const last = Math.min(least, 1 - this.#corners.high(sum / pull));
    if (last > 0) this.#take(pull, row, last);
  }

  #over(): boolean {
    if (!this.#stopped && (this.#nodes >= (this.options.nodes ?? Infinity) || (this.#nodes % 1024 === 0 && this.options.stop?.())))
      this.#stopped = true;
    return this.#stopped;
  }

  #descend(pull: number, depth: number, sum: number, row: number[], least: number): void {
    const { keys, values } = this.input;
    const high = this.#corners.high(sum / pull);
    const more = keys - 1 - depth;
    if (more === 0) {
      const gap = Math.min(least, 1 - high);
      if (gap > 0) this.#take(pull, row, gap);
      return;
    }
    for (const value of values) {
      const next = sum + value;
      const gap = Math.min(least, this.#corners.low(next / pull) - high);
      const best = this.#best?.gap ?? 0;
      if (gap <= best) {
        if (least <= best) return;
        continue;
      }
      // Larger ones leave the others only less.
      if (Math.min(gap, this.#corners.bound(this.#corners.high(next / pull), more - 1)) <= best) {
        if (this.#corners.bound(this.#corners.high(next / pull), more - 1) <= best) return;
        continue;
      }
      this.#nodes += 1;
      if (this.#over()) return;
      row.push(value);
      this.#descend(pull, depth + 1, next, row, gap);
      row.pop();
    }
  }

  #ladder(): Ladder {
    const best = orThrow(this.#best, 'ladder');
    let { pull, row } = best;
    // Ten times the resistance gives the same readings with a tenth of the current.
    const has = (ohms: number) => this.input.values.includes(ohms);
    while (pull * 10 <= FOLLOWED && [pull, ...row].every((ohms) => has(ohms * 10))) [pull, row] = [pull * 10, row.map((ohms) => ohms * 10)];
    return ladderOf(this.input, pull, row, best.gap);
  }
}

/** Fewer counts than this between two keys, and noise of an analog input of a microcontroller mixes them up. */
const THIN_COUNTS = 8;
/** Minimum fraction of full scale, because ADC steps are not uniform. */
const THIN_SHARE = 0.005;

/** Whether a distance between two keys is too small to rely on.
 *  @param gap and `counts`, the full scale, both in counts */
export const isThin = (gap: number, counts: number): boolean => gap < THIN_COUNTS || gap < THIN_SHARE * counts;

/** A ladder of given values with its levels and thresholds. */
export function ladderOf(
  tolerances: Pick<LadderInput, 'tolerance' | 'pullTolerance'>,
  pull: number,
  row: readonly number[],
  gap: number = ladderGap(tolerances, pull, row),
): Ladder {
  const { tolerance, pullTolerance } = tolerances;
  const corners = new Corners(tolerance, pullTolerance ?? tolerance);
  const sums = row.reduce<number[]>((all, ohms) => [...all, lastOrThrow(all) + ohms], [0]);
  const levels = sums.map((sum): Range => ({
    min: corners.low(sum / pull),
    typ: sum / (sum + pull),
    max: corners.high(sum / pull),
  }));
  const thresholds = levels.map((level, at) => (level.max + (levels[at + 1]?.min ?? 1)) / 2);
  return { pull, row, levels, gap, thresholds };
}

/** The smallest gap of a ladder of given values, as a share of the supply; below nothing where neighbours overlap. */
export function ladderGap(
  { tolerance, pullTolerance }: Pick<LadderInput, 'tolerance' | 'pullTolerance'>,
  pull: number,
  row: readonly number[],
): number {
  const corners = new Corners(tolerance, pullTolerance ?? tolerance);
  let sum = 0;
  let gap = Infinity;
  for (const ohms of row) {
    const high = corners.high(sum / pull);
    sum += ohms;
    gap = Math.min(gap, corners.low(sum / pull) - high);
  }
  return Math.min(gap, 1 - corners.high(sum / pull));
}

/** The resistors of a ladder keypad: of all values there are those whose smallest gap at the worst corners is largest.
 *  @throws RangeError when the count of keys, the values or a tolerance cannot be */
export function ladder(input: LadderInput, options: LadderOptions = {}): LadderSearch {
  const { keys, values, tolerance, pullTolerance = tolerance } = input;
  if (!Number.isInteger(keys) || keys < 1 || keys > LADDER_KEYS.most)
    throw new RangeError(`keys ${keys}: expected 1 to ${LADDER_KEYS.most} on one pin; more keys need a second pin or a matrix`);
  if (values.length === 0) throw new RangeError('values: expected at least one resistor value');
  const bad = values.find((value) => !(value > 0));
  if (bad !== undefined) throw new RangeError(`values ${bad}: expected ohms above zero`);
  for (const [name, value] of [
    ['tolerance', tolerance],
    ['pull-tolerance', pullTolerance],
  ] as const)
    if (!(value >= 0 && value < 1)) throw new RangeError(`${name} ${value}: expected a fraction from 0 to below 1`);
  return new Search({ ...input, values: values.toSorted((a, b) => a - b) }, options).run();
}
