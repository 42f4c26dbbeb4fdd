import type { LadderReport } from '../../electrics/reports/ladderReport';
import { type LadderValues, PLAN_LIMITS } from '../../plan/plan';
import { formatSi } from '../../quantity/format';
import { ambiguousText, parseSi, splitValues } from '../../quantity/parse';

/** Resistors as they are typed. */
export const writeLadder = ({ pull, row }: LadderValues): string => [pull, ...row].map((ohms) => formatSi(ohms, 'Ω')).join(', ');

/** A comma or semicolon with nothing before or after it. */
const HAS_GAP = /^\s*[,;]|[,;]\s*(?:[,;]|$)/;

/** Parses typed resistors, or returns what is wrong with them.
 *  @example readLadder('10k, 2k2') // { pull: 10000, row: [2200] } */
export function readLadder(text: string): LadderValues | string {
  const split = splitValues(text);
  if ('ambiguous' in split) return ambiguousText(split.ambiguous);
  const parts = split.pieces;
  const values = parts.map((part) => parseSi(part, 'Ω'));
  if (parts.length === 0 || HAS_GAP.test(text)) return 'Enter resistances such as 10k, 2k2, 470';
  const bad = values.findIndex((ohms) => ohms === undefined || !(ohms >= 0.1 && ohms <= 1e8));
  if (bad >= 0) return `${parts[bad]} is not a resistance. Example: 10k, 2k2, 470`;
  if (values.length > PLAN_LIMITS.ladderKeys) return `${values.length} resistors: at most ${PLAN_LIMITS.ladderKeys} keys per pin`;
  const [pull = 0, ...row] = values as number[];
  return { pull, row };
}

const VERDICT_TEXT = { good: 'apart in the worst case', thin: 'apart in the worst case (low margin)', overlap: 'overlapping' } as const;

/** What the keys' readings come to, and the thresholds between them. */
export function ladderText({ count, counts, values, reading }: LadderReport): string {
  if (counts === undefined) return 'Not connected to an analog input with a known scale.';
  if (!values || !reading)
    return `${count} keys. Their resistors are unknown: read them from the module, or choose them from your values on hand.`;
  const { gap, thresholds, verdict } = reading;
  const limits = thresholds.map((at) => Math.round(at)).join(', ');
  return `${count} keys, full scale ${counts} counts; the closest two are ${Math.round(Math.abs(gap))} ${VERDICT_TEXT[verdict]}. Thresholds: ${limits}.`;
}
