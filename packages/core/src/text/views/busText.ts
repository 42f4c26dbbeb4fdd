import type { Segment } from '../../nets/segments';
import { listText, memberText, placementText } from '../names';
import type { PullUpResult } from '../../electrics/formulas/busPullUps';
import type { Plan } from '../../plan/plan';
import { formatSi } from '../../quantity/format';
import type { SegmentReport } from '../../electrics/reports/segmentReport';
import type { I2cReport } from '../../review/i2cReport';

export const VERDICT_TEXT: { readonly [V in PullUpResult['verdict']]: string } = {
  missing: 'none',
  'too-strong': 'too strong',
  'too-weak': 'too weak',
  both: 'too strong and too weak',
  good: 'OK',
};

/** @example percent(0.0421) // '4.2 %' */
export function percent(share: number): string {
  const value = 100 * share;
  return `${value >= 10 ? Math.round(value) : Number(value.toPrecision(2))} %`;
}

/** What to do about the pull-ups of a bus, in one or two sentences with the numbers that count. */
export function pullUpAdvice(plan: Plan, { pullUps, add, cut, input, line }: SegmentReport): string {
  const sink = `worst-case sink current ${formatSi(pullUps.sinkAmps, 'A')} (${memberText(plan, pullUps.weakest)}: ${formatSi(pullUps.canSinkAmps, 'A')})`;
  const rise =
    pullUps.riseSeconds && Number.isFinite(pullUps.riseSeconds.max)
      ? `rise time of ${line.toUpperCase()} ${formatSi(pullUps.riseSeconds.max, 's')} (limit ${formatSi(pullUps.riseLimitSeconds, 's')} at ${formatSi(input.hz, 'Hz')})`
      : `${line.toUpperCase()} does not reach VIH`;
  const slower = pullUps.fastest ? ` The present pull-ups allow ${pullUps.fastest.name}.` : '';
  const closed = pullUps.windowOpen ? '' : ` No value meets both limits: use a lower clock or less capacitance.`;
  switch (pullUps.verdict) {
    case 'good':
      return `OK: ${rise}; ${sink}.`;
    case 'missing':
      return add === undefined
        ? `No pull-up resistors: the lines float.${closed}`
        : `No pull-up resistors: add ${formatSi(add, 'Ω')} to each line.`;
    case 'too-weak':
      return `Too weak: ${rise}.${add === undefined ? closed : ` Add ${formatSi(add, 'Ω')} to each line.`}${slower}`;
    case 'too-strong':
      return `Too strong: ${sink}.${cut.length > 0 ? ` Remove the pull-ups of ${listText(cut.map((id) => placementText(plan, id)))}.` : ''}`;
    case 'both':
      return `Too strong and too weak: ${sink}; ${rise}.${closed}${slower}`;
  }
}

/** Who sets the clock, and what of that. */
export function timeText(plan: Plan, { time, limits, unknown }: I2cReport): string {
  const [first, second] = limits;
  const limit = first ? `${memberText(plan, first.id)} limits the clock to ${formatSi(first.hz, 'Hz')}` : 'No sheet states a maximum clock';
  const without =
    first && second && second.hz > first.hz && first.id !== 'board' ? `; the other devices support ${formatSi(second.hz, 'Hz')}` : '';
  const over = time.share > 1 ? ' Utilisation above 100 %: accesses are delayed.' : '';
  const longest = time.longestSeconds > 0 ? ` Longest wait for another transfer: ${formatSi(time.longestSeconds, 's')}.` : '';
  const missing = unknown.length > 0 ? ` Traffic of ${listText(unknown.map((id) => placementText(plan, id)))} unknown.` : '';
  return `${limit}${without}.${longest}${over}${missing}`;
}

/** Notes on idle levels above the limit of a device; empty without one. */
export function idleLevelText(plan: Plan, { overdriven, pullingHigher }: SegmentReport): string {
  const first = overdriven[0];
  if (!first) return '';
  const higher = listText(pullingHigher.map((id) => memberText(plan, id)));
  return `Idle level up to ${formatSi(first.restVolts, 'V')}; ${memberText(plan, first.id)} tolerates ${formatSi(first.limitVolts, 'V')}. Pulled up by ${higher}: remove its pull-ups or add a level shifter before you connect power.`;
}

/** The name of a bus segment: of that at the board's pins, or of one behind a part. */
export function segmentText({ via }: Segment): string {
  if (!via) return 'Pull-ups';
  return `Pull-ups behind ${via.placement.name}${via.channel === undefined ? '' : `, channel ${via.channel}`}`;
}
