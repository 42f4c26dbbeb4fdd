import { orThrow } from '../../collections/orThrow';
import type { Edit } from '../../plan/edit';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { broughtHigh } from './shiftSegment';
import { I2C_SOURCE, type BusSegment, segmentDatum, busSegmentsOf, conditionOfSegment, segmentPlace } from './busSegments';

/** The fastest mode that the lines keep as they are. */
function slower(context: CheckContext, { bus, report }: BusSegment): readonly Remedy[] {
  const { fastest } = report.pullUps;
  if (!fastest || fastest.maxHz >= report.input.hz) return [];
  const settings = { ...context.plan.busSettings[bus.controller], hz: fastest.maxHz };
  const edits: readonly Edit[] = [{ kind: 'bus-settings', segment: bus.controller, settings }];
  return [{ label: 'slower', data: { hz: { is: 'quantity', value: fastest.maxHz, unit: 'Hz' } }, grade: 'offered', edits }];
}

const isWeak = ({ pullUps: { verdict } }: BusSegment['report']): boolean => verdict === 'too-weak' || verdict === 'both';

function finding(context: CheckContext, segment: BusSegment): FindingDraft {
  const { pullUps, input } = segment.report;
  const rise = orThrow(pullUps.riseSeconds, 'rise time').max;
  return {
    // A rise time above the limit only with all tolerances combined has no effect: controllers wait until the clock line is high.
    level: conditionOfSegment(context, segment, isWeak) === 'nominal' ? 'risk' : 'hint',
    message: !Number.isFinite(rise) ? 'never' : pullUps.windowOpen ? 'weak' : 'closed',
    place: segmentPlace(segment),
    data: {
      bus: segmentDatum(segment),
      ...(Number.isFinite(rise) ? { rise: { is: 'quantity', value: rise, unit: 's' } as const } : {}),
      limit: { is: 'quantity', value: pullUps.riseLimitSeconds, unit: 's' },
      hz: { is: 'quantity', value: input.hz, unit: 'Hz' },
      farads: { is: 'quantity', value: pullUps.allFarads, unit: 'F' },
      ...(Number.isFinite(pullUps.leastOhms)
        ? { least: { is: 'quantity', value: pullUps.leastOhms, unit: 'Ω' } as const }
        : { least: { is: 'words', text: 'none' } as const }),
      most: { is: 'quantity', value: pullUps.mostOhms, unit: 'Ω' },
    },
    source: I2C_SOURCE,
    remedies: () => [...broughtHigh(context, segment), ...slower(context, segment)],
  };
}

const why =
  'tr = 0.8473 · Rp · Cb (0.3 VDD to 0.7 VDD) with Rp at its maximum. A longer rise time violates the data set-up time. Through a MOSFET level shifter both sides rise together first: both capacitances through all pull-ups.';

export const pullupTooWeak: Check = {
  code: 'pullup-too-weak',
  question: 'Is the rise time of every I2C line within the limit of its mode?',
  messages: {
    weak: { title: '{bus}: pull-ups too weak for {hz}', text: 'Worst-case rise time {rise}, limit {limit}.', why },
    closed: {
      title: '{bus}: no pull-up value is suitable for {hz}',
      text: 'Cb {farads}: rise time {rise}, limit {limit}. IOL requires at least {least}, the rise time at most {most}.',
      why: `${why} No value meets both limits: use a lower clock, less capacitance or a lower supply.`,
    },
    never: { title: '{bus}: the lines never reach VIH', text: 'The idle level is below 0.7 VDD.', why },
  },
  remedies: {
    add: 'Add {ohms} pull-ups to each line',
    shift: 'Connect {parts} through a level shifter ({shifter})',
    slower: 'Set the bus clock to {hz}',
  },
  examine: (context) =>
    busSegmentsOf(context)
      .filter(({ report }) => isWeak(report))
      .map((segment) => finding(context, segment)),
};
