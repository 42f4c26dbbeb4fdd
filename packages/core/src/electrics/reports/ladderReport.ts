import { atOrThrow } from '../../collections/orThrow';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { terminalsOf } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { LadderValues, Placement, Plan, TerminalKey } from '../../plan/plan';
import { type Range, typical } from '../../quantity/range';
import { valuesWithin } from '../../quantity/series';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { feedOf, logicVolts } from './busInputs';
import { isThin, ladder, ladderOf } from '../formulas/ladder';

/** What an analog input reads of the keys on it, as the plan has them. */
export interface LadderReading {
  /** Key by key, the first one first, in counts. */
  readonly keys: readonly Range[];
  /** With no key down. */
  readonly idle: Range;
  /** Smallest distance between two of them at their worst, in counts; below nothing where they overlap. */
  readonly gap: number;
  /** The two that it lies between: numbers of keys from 1, the idle one as 0. */
  readonly between: readonly [number, number];
  /** Between neighbours, in rising order, in counts. */
  readonly thresholds: readonly number[];
  readonly verdict: 'good' | 'thin' | 'overlap';
}

/** Keys on one analog pin of a plan. */
export interface LadderReport {
  readonly placement: string;
  readonly key: TerminalKey;
  /** How many keys there are: as many as the resistors say, else as the sheet does. */
  readonly count: number;
  readonly leadTo: 'ground' | 'supply';
  readonly values: LadderValues | undefined;
  /** Full scale of the analog input in counts; undefined where the board has none, or its sheet does not say. */
  readonly counts: number | undefined;
  readonly reading: LadderReading | undefined;
}

/** What turns a share of the keys' supply into counts, at its corners. */
interface Scale {
  readonly counts: number;
  readonly factor: Range;
  /** Where readings end, in counts. */
  readonly floor: number;
  readonly ceiling: number;
}

function scaleOf(plan: Plan, sheets: Sheets, board: IndexedBoard, placement: Placement): Scale | undefined {
  const { analog } = board.sheet;
  if (!analog) return undefined;
  const counts = 2 ** analog.bits - 1;
  const full = logicVolts(board);
  const feed = feedOf(plan, sheets, board, placement.id);
  // On the supply that the readings follow a level keeps its share, whatever that supply is.
  const follows = analog.reference === 'supply' && feed.rail === board.sheet.logicRail;
  const reference: Range = analog.reference === 'supply' ? full : { min: typical(full), typ: typical(full), max: typical(full) };
  const factor: Range = follows
    ? { min: 1, typ: 1, max: 1 }
    : {
        min: feed.volts.min / reference.max,
        typ: typical(feed.volts) / typical(reference),
        max: feed.volts.max / reference.min,
      };
  const inCounts = (volts: number) => (volts / typical(full)) * counts;
  return {
    counts,
    factor,
    floor: analog.volts ? inCounts(analog.volts.min) : 0,
    ceiling: Math.min(counts, analog.volts ? inCounts(analog.volts.max) : counts),
  };
}

/** Readings of a ladder: what lies outside the range that is read right, reads as its end. */
function readingOf({ pull, row }: LadderValues, leadTo: LadderReport['leadTo'], scale: Scale): LadderReading {
  const { factor, counts, floor, ceiling } = scale;
  const clip = (value: number) => Math.min(ceiling, Math.max(floor, value));
  const read = (share: Range): Range => ({
    min: clip(share.min * factor.min * counts),
    typ: clip(typical(share) * typical(factor) * counts),
    max: clip(share.max * factor.max * counts),
  });
  const turned = (share: Range): Range => ({ min: 1 - share.max, typ: 1 - typical(share), max: 1 - share.min });
  const { levels } = ladderOf({ tolerance: USUAL_TOLERANCE }, pull, row);
  const keys = levels.map((level) => read(leadTo === 'ground' ? level : turned(level)));
  const idle = read(leadTo === 'ground' ? { min: 1, typ: 1, max: 1 } : { min: 0, typ: 0, max: 0 });
  const rising = [...keys.map((range, at) => ({ range, number: at + 1 })), { range: idle, number: 0 }].toSorted(
    (a, b) => typical(a.range) - typical(b.range),
  );
  const gaps = rising.slice(1).map((upper, at) => ({
    gap: upper.range.min - atOrThrow(rising, at).range.max,
    between: [atOrThrow(rising, at).number, upper.number] as const,
    threshold: (upper.range.min + atOrThrow(rising, at).range.max) / 2,
  }));
  const least = gaps.reduce((a, b) => (b.gap < a.gap ? b : a));
  return {
    keys,
    idle,
    gap: least.gap,
    between: least.between,
    thresholds: gaps.map((one) => one.threshold),
    verdict: least.gap <= 0 ? 'overlap' : isThin(least.gap, counts) ? 'thin' : 'good',
  };
}

/** The ladders of keys of a plan, with what is read of each key. */
export const ladderReports = memoizeByPair((plan: Plan, sheets: Sheets): readonly LadderReport[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  return plan.placements.flatMap((placement): LadderReport[] => {
    const keys = partSheet(sheets, placement.sheet)?.sheet.keys;
    const pin = keys?.as === 'ladder' ? terminalsOf(plan, placement, sheets).find((t) => t.terminal.role === 'adc.in') : undefined;
    if (!keys || !pin) return [];
    const values = plan.ladders[placement.id];
    const leadTo = keys.leadTo ?? 'ground';
    // Analog inputs of other parts have scales of their own.
    const scale = pin.wire?.end.to === 'terminal' ? undefined : scaleOf(plan, sheets, board, placement);
    return [
      {
        placement: placement.id,
        key: pin.key,
        count: values ? values.row.length + 1 : keys.count,
        leadTo,
        values,
        counts: scale?.counts,
        reading: values && scale && readingOf(values, leadTo, scale),
      },
    ];
  });
});

/** Search limit in nodes for more than six keys; up to six are proved optimal. */
const MANY_KEYS_NODES = 20_000;

/** The ladder from the values on hand with the largest distance between keys; undefined if no values separate them. */
export function fitLadder(plan: Plan, keys: number): LadderValues | undefined {
  const values = valuesWithin(plan.valuesOnHand, 100, 100_000);
  if (values.length === 0) return undefined;
  const { best } = ladder({ keys, values, tolerance: USUAL_TOLERANCE }, keys > 6 ? { nodes: MANY_KEYS_NODES } : {});
  return best && { pull: best.pull, row: best.row };
}
