import type { Check, CheckContext, FindingDraft } from './check';
import { LEVEL_FROM } from './severity';
import { shifted } from './shiftStretch';
import { cutFor, I2C_SOURCE, type Stretch, stretchDatum, stretchesOf, stretchFrom, stretchPlace, who } from './stretches';

function finding(context: CheckContext, stretch: Stretch): FindingDraft {
  const { overdriven, pullingHigher } = stretch.sheet;
  const [first] = overdriven;
  const parts = pullingHigher.filter((id) => context.plan.placements.some((p) => p.id === id));
  return {
    level: LEVEL_FROM[stretchFrom(context, stretch, (one) => one.overdriven.length > 0)],
    message: overdriven.length > 1 ? 'several' : 'high',
    place: stretchPlace(stretch),
    data: {
      bus: stretchDatum(stretch),
      rest: { is: 'volts', value: first!.restVolts },
      limit: { is: 'volts', value: first!.limitVolts },
      first: who(first!.id),
      count: { is: 'count', value: overdriven.length },
      pulling: { is: 'placements', ids: pullingHigher },
    },
    source: I2C_SOURCE,
    remedies: () => [
      ...cutFor(context, stretch, parts),
      ...shifted(context, stretch, [parts, overdriven.map((one) => one.id).filter((id) => id !== 'board')]),
    ],
  };
}

const why =
  'A line rests where its pull-ups meet: Σ (V / R) / Σ (1 / R), at the corner that is highest. An input takes its own supply and half a volt more, unless its sheet says that it stands more; above, current flows into the part through its protection, whether the bus seems to work or not.';

export const pullupWrongRail: Check = {
  code: 'pullup-wrong-rail',
  harm: true,
  question: 'Does no pull-up bring an I2C line higher than everybody on it takes?',
  messages: {
    high: { title: '{bus}: lines rest at up to {rest}', text: '{first} takes {limit}. Pulled higher by {pulling}.', why },
    several: {
      title: '{bus}: lines rest at up to {rest}',
      text: '{count} on it take less, {first} least: {limit}. Pulled higher by {pulling}.',
      why,
    },
  },
  remedies: {
    cut: 'Cut the pull-ups of {parts}',
    'cut-and-add': 'Cut the pull-ups of {parts}, add {ohms} on each line',
    shift: 'Put {parts} behind a level shifter ({shifter})',
  },
  examine: (context) =>
    stretchesOf(context)
      .filter(({ sheet }) => sheet.overdriven.length > 0)
      .map((stretch) => finding(context, stretch)),
};
