import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { toBusOfItsOwn } from '../fixes/ownBus';
import { I2C_SOURCE, type BusSegment, segmentDatum, busSegmentsOf, segmentPlace } from './busSegments';

/** What a part brings to a line at least, in farads: its input, and its row of the breadboard. */
const PER_PART = 13e-12;

function finding(context: CheckContext, segment: BusSegment): FindingDraft {
  const { pullUps, capacitance } = segment.report;
  const { via, members } = segment.report.segment;
  const last = via ? undefined : members.findLast((m) => !m.onBoard);
  // A measured capacitance cannot be attributed to single parts.
  const helps = capacitance.measured === undefined && pullUps.allFarads - PER_PART <= pullUps.mostFarads;
  return {
    level: 'risk',
    message: capacitance.measured === undefined ? 'estimated' : 'measured',
    place: segmentPlace(segment),
    data: {
      bus: segmentDatum(segment),
      farads: { is: 'quantity', value: pullUps.allFarads, unit: 'F' },
      most: { is: 'quantity', value: pullUps.mostFarads, unit: 'F' },
    },
    source: I2C_SOURCE,
    remedies: () => (last && helps && members.length > 1 ? toBusOfItsOwn(context, last.id, 'i2c') : []),
  };
}

const why =
  'UM10204, table 10: Cb is the sum of all pins, wires and breadboard rows on one line. Shorter wires, fewer devices, a second bus or a multiplexer reduce it.';

export const capacitanceOver: Check = {
  code: 'capacitance-over',
  question: 'Is the capacitance of every I2C line within the limit of its mode?',
  messages: {
    estimated: {
      title: '{bus}: estimated bus capacitance {farads}, limit {most}',
      text: 'Estimated from inputs, wire length and connections.',
      why,
    },
    measured: { title: '{bus}: bus capacitance {farads}, limit {most}', text: 'Measured value.', why },
  },
  remedies: { 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    busSegmentsOf(context)
      .filter(({ report }) => report.pullUps.allFarads > report.pullUps.mostFarads)
      .map((segment) => finding(context, segment)),
};
