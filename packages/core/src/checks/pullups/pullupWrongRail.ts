import { firstOrThrow } from '../../collections/orThrow';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { LEVEL_FROM } from '../engine/severity';
import { shiftedSegments } from './shiftSegment';
import { cutFor, I2C_SOURCE, type BusSegment, segmentDatum, busSegmentsOf, conditionOfSegment, segmentPlace, who } from './busSegments';

function finding(context: CheckContext, segment: BusSegment): FindingDraft {
  const { overdriven, pullingHigher } = segment.report;
  const first = firstOrThrow(overdriven);
  const parts = pullingHigher.filter((id) => context.plan.placements.some((p) => p.id === id));
  return {
    level: LEVEL_FROM[conditionOfSegment(context, segment, (one) => one.overdriven.length > 0)],
    message: overdriven.length > 1 ? 'several' : 'high',
    place: segmentPlace(segment),
    data: {
      bus: segmentDatum(segment),
      rest: { is: 'volts', value: first.restVolts },
      limit: { is: 'volts', value: first.limitVolts },
      first: who(first.id),
      count: { is: 'count', value: overdriven.length },
      pulling: { is: 'placements', ids: pullingHigher },
    },
    source: I2C_SOURCE,
    remedies: () => [
      ...cutFor(context, segment, parts),
      ...shiftedSegments(context, segment, [parts, overdriven.map((one) => one.id).filter((id) => id !== 'board')]),
    ],
  };
}

const why =
  'Vidle = Σ (V / Rp) / Σ (1 / Rp), at the highest corner. An I2C input tolerates VDD + 0.5 V (UM10204, table 9) unless its datasheet states more. Above it, current flows through the protection diode into the device, even if the bus appears to work.';

export const pullupWrongRail: Check = {
  code: 'pullup-wrong-rail',
  harm: true,
  question: 'Is the idle level of every I2C line tolerated by all its devices?',
  messages: {
    high: { title: '{bus}: idle level up to {rest}, {first} tolerates {limit}', text: 'Pulled up by {pulling}.', why },
    several: {
      title: '{bus}: idle level up to {rest}, {first} tolerates {limit}',
      text: '{count} devices tolerate less than the idle level. Pulled up by {pulling}.',
      why,
    },
  },
  remedies: {
    cut: 'Remove the pull-ups of {parts}',
    'cut-and-add': 'Remove the pull-ups of {parts}, add {ohms} to each line',
    shift: 'Connect {parts} through a level shifter ({shifter})',
  },
  examine: (context) =>
    busSegmentsOf(context)
      .filter(({ report }) => report.overdriven.length > 0)
      .map((segment) => finding(context, segment)),
};
