import type { Check, CheckContext, FindingDraft } from './check';
import { cutFor, I2C_SOURCE, type Stretch, stretchDatum, stretchesOf, stretchFrom, stretchPlace, takeAdded, who } from './stretches';

const isStrong = ({ pullUps }: Stretch['sheet']): boolean => pullUps.verdict === 'too-strong' || pullUps.verdict === 'both';

function finding(context: CheckContext, stretch: Stretch): FindingDraft {
  const { pullUps } = stretch.sheet;
  return {
    level: stretchFrom(context, stretch, isStrong) === 'extreme' ? 'hint' : 'risk',
    message: 'strong',
    place: stretchPlace(stretch),
    data: {
      bus: stretchDatum(stretch),
      sink: { is: 'quantity', value: pullUps.sinkAmps, unit: 'A' },
      can: { is: 'quantity', value: pullUps.canSinkAmps, unit: 'A' },
      weakest: who(pullUps.weakest),
    },
    source: I2C_SOURCE,
    remedies: () => [...takeAdded(context, stretch), ...cutFor(context, stretch, stretch.sheet.cut)],
  };
}

/** Stretches that are one while a line is low sink the same current: it is told of the first of them. */
const isToldBefore = ({ bus, sheet }: Stretch, strong: readonly Stretch[]): boolean =>
  strong.some(
    (other) => other.bus === bus && !other.sheet.segment.via && sheet.input.joined?.some((one) => one.id === other.sheet.segment.id),
  );

export const pullupTooStrong: Check = {
  code: 'pullup-too-strong',
  question: 'Can every part on an I2C bus pull the lines low against all pull-ups together?',
  messages: {
    strong: {
      title: '{bus}: pull-ups too strong',
      text: '{sink} to sink at worst, {weakest} can {can}.',
      why: 'All pull-ups on a line are in parallel, and the part that pulls it low must sink the current of every one: Σ (V − VOL) / R, each resistor at its least and each supply at its highest. Above what the weakest part can sink, its low is no longer low for certain.',
    },
  },
  remedies: {
    'take-added': 'Take the added pull-ups away',
    cut: 'Cut the pull-ups of {parts}',
    'cut-and-add': 'Cut the pull-ups of {parts}, add {ohms} on each line',
  },
  examine: (context) => {
    const strong = stretchesOf(context).filter(({ sheet }) => isStrong(sheet));
    return strong.filter((stretch) => !isToldBefore(stretch, strong)).map((stretch) => finding(context, stretch));
  },
};
