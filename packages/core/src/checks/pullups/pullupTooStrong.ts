import { sinkOf } from '../../electrics/reports/busInputs';
import { isTooStrong, type LineSegment } from '../../electrics/formulas/busPullUps';
import type { DriveSetting } from '../../sheets/boardSheet';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import {
  cutFor,
  I2C_SOURCE,
  type BusSegment,
  segmentDatum,
  busSegmentsOf,
  conditionOfSegment,
  segmentPlace,
  takeAdded,
  who,
} from './busSegments';

const isStrong = ({ pullUps }: BusSegment['report']): boolean => pullUps.verdict === 'too-strong' || pullUps.verdict === 'both';

/** Above the noise margin a low may be read as a high; below it the line only breaks the standard. */
const isUnread = ({ pullUps }: BusSegment['report']): boolean => pullUps.reachedVolts > pullUps.reachLimitVolts;

/** The weakest drive strength of the board's pins at which the lines are pulled low for certain; none where that is not what lacks. */
function strengthFor(context: CheckContext, { report }: BusSegment): DriveSetting | undefined {
  const { driveSettings = [], pinMilliamps } = context.board.sheet.electrical;
  const at = <T extends LineSegment>(segment: T, fact: DriveSetting): T => ({
    ...segment,
    sinks: segment.sinks.map((sink) => (sink.id === 'board' ? sinkOf('board', fact, segment.vdd.max, pinMilliamps / 1000) : sink)),
  });
  return driveSettings.find((fact) => {
    const { joined } = report.input;
    return !isTooStrong({ ...at(report.input, fact), ...(joined ? { joined: joined.map((one) => at(one, fact)) } : {}) });
  });
}

function finding(context: CheckContext, segment: BusSegment): FindingDraft {
  const { pullUps } = segment.report;
  const strength = strengthFor(context, segment);
  return {
    level: !strength && conditionOfSegment(context, segment, isUnread) !== 'extreme' ? 'risk' : 'hint',
    message: strength ? 'strength' : 'strong',
    place: segmentPlace(segment),
    data: {
      bus: segmentDatum(segment),
      sink: { is: 'quantity', value: pullUps.sinkAmps, unit: 'A' },
      can: { is: 'quantity', value: pullUps.canSinkAmps, unit: 'A' },
      weakest: who(pullUps.weakest),
      volts: { is: 'volts', value: pullUps.canSinkAmps === 0 ? 0 : (pullUps.reachedVolts * pullUps.canSinkAmps) / pullUps.sinkAmps },
      reached: { is: 'volts', value: pullUps.reachedVolts },
      limit: { is: 'volts', value: pullUps.reachLimitVolts },
      ...(strength ? { setting: { is: 'words', text: strength.setting } as const } : {}),
    },
    source: I2C_SOURCE,
    remedies: () => [...takeAdded(context, segment), ...cutFor(context, segment, segment.report.cut)],
  };
}

/** Segments that are connected while a line is low sink the same current, which is reported for the first of them. */
const isToldBefore = ({ bus, report }: BusSegment, strong: readonly BusSegment[]): boolean =>
  strong.some(
    (other) => other.bus === bus && !other.report.segment.via && report.input.joined?.some((one) => one.id === other.report.segment.id),
  );

export const pullupTooStrong: Check = {
  code: 'pullup-too-strong',
  question: 'Can every device on an I2C bus sink the current of all pull-ups?',
  messages: {
    strength: {
      title: '{bus}: increase the pin drive strength ({setting})',
      text: 'Worst-case sink current {sink}; the reset drive strength is specified for {can} at {volts}.',
      why: 'Drive strength is a register setting. With the reset value VOL exceeds the I2C limit; a stronger setting lowers VOL without additional parts.',
    },
    strong: {
      title: '{bus}: pull-ups too strong',
      text: 'Worst-case sink current {sink}; {weakest} is specified for {can} at {volts}. VOL reaches {reached}, limit {limit}.',
      why: 'I = Σ (V − VOL) / Rp with every Rp at its minimum and every supply at its maximum. Above its specified IOL, the VOL of a device rises with its output resistance. Warning: VOL uses up the noise margin of 0.1 VDD. Note: below that.',
    },
  },
  remedies: {
    'take-added': 'Remove the added pull-ups',
    cut: 'Remove the pull-ups of {parts}',
    'cut-and-add': 'Remove the pull-ups of {parts}, add {ohms} to each line',
  },
  examine: (context) => {
    const strong = busSegmentsOf(context).filter(({ report }) => isStrong(report));
    return strong.filter((segment) => !isToldBefore(segment, strong)).map((segment) => finding(context, segment));
  },
};
