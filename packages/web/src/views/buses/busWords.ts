import { sayList, sayMember, sayPlacement } from '@roof-chart/core/checks/say';
import type { PullUpResult } from '@roof-chart/core/electrics/busPullUps';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import type { SegmentSheet } from '@roof-chart/core/electrics/segmentSheet';
import type { I2cSheet } from '@roof-chart/core/review/i2cSheet';

export const VERDICT_WORDS: { readonly [V in PullUpResult['verdict']]: string } = {
  missing: 'none',
  'too-strong': 'too strong',
  'too-weak': 'too weak',
  both: 'too strong for one, too weak for the clock',
  good: 'well',
};

/** @example percent(0.0421) // '4.2 %' */
export function percent(share: number): string {
  const value = 100 * share;
  return `${value >= 10 ? Math.round(value) : Number(value.toPrecision(2))} %`;
}

/** What to do about the pull-ups of a bus, in one or two sentences with the numbers that count. */
export function pullUpAdvice(plan: Plan, { pullUps, add, cut, input, line }: SegmentSheet): string {
  const sink = `${formatSi(pullUps.sinkAmps, 'A')} to sink at worst, ${sayMember(plan, pullUps.weakest)} can ${formatSi(pullUps.canSinkAmps, 'A')}`;
  const rise =
    pullUps.riseSeconds && Number.isFinite(pullUps.riseSeconds.max)
      ? `${line.toUpperCase()} rises in ${formatSi(pullUps.riseSeconds.max, 's')} at worst, ${formatSi(pullUps.riseLimitSeconds, 's')} allowed at ${formatSi(input.hz, 'Hz')}`
      : `${line.toUpperCase()} does not reach the high level`;
  const slower = pullUps.fastest ? ` As it is the bus may run in ${pullUps.fastest.name}.` : '';
  const closed = pullUps.windowOpen ? '' : ` No resistor can serve: a slower clock or less capacitance opens the window.`;
  switch (pullUps.verdict) {
    case 'good':
      return `Nothing is needed: ${rise}; ${sink}.`;
    case 'missing':
      return add === undefined
        ? `No pull-up holds the lines high.${closed}`
        : `No pull-up holds the lines high: add ${formatSi(add, 'Ω')} on each.`;
    case 'too-weak':
      return `Too weak: ${rise}.${add === undefined ? closed : ` Add ${formatSi(add, 'Ω')} on each line.`}${slower}`;
    case 'too-strong':
      return `Too strong: ${sink}.${cut.length > 0 ? ` Cut the pull-ups of ${sayList(cut.map((id) => sayPlacement(plan, id)))}.` : ''}`;
    case 'both':
      return `Too strong and too weak at once: ${sink}; ${rise}.${closed}${slower}`;
  }
}

/** Who sets the clock, and what of that. */
export function timeWords(plan: Plan, { time, limits, unknown }: I2cSheet): string {
  const [first, second] = limits;
  const limit = first ? `${sayMember(plan, first.id)} allows ${formatSi(first.hz, 'Hz')} at most` : 'No sheet gives a highest clock';
  const without = first && second && second.hz > first.hz && first.id !== 'board' ? `, the others ${formatSi(second.hz, 'Hz')}` : '';
  const over = time.share > 1 ? ' More is asked for than a second holds: parts will wait for one another.' : '';
  const longest = time.longestSeconds > 0 ? ` A part waits ${formatSi(time.longestSeconds, 's')} at most for a transfer of another.` : '';
  const missing = unknown.length > 0 ? ` What ${sayList(unknown.map((id) => sayPlacement(plan, id)))} send is not known.` : '';
  return `${limit}${without}.${longest}${over}${missing}`;
}

/** What to know where the lines rest above what somebody on them takes; empty where they do not. */
export function restWords(plan: Plan, { overdriven, pullingHigher }: SegmentSheet): string {
  const first = overdriven[0];
  if (!first) return '';
  const higher = sayList(pullingHigher.map((id) => sayMember(plan, id)));
  return `The lines rest at up to ${formatSi(first.restVolts, 'V')}, ${sayMember(plan, first.id)} takes ${formatSi(first.limitVolts, 'V')}: ${higher} pulls them higher. Cut its pull-ups or put a level shifter between, before you connect power.`;
}
