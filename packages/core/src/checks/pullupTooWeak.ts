import type { Edit } from '../plan/edit';
import type { Check, CheckContext, FindingDraft, Remedy } from './check';
import { broughtHigh } from './shiftStretch';
import { I2C_SOURCE, type Stretch, stretchDatum, stretchesOf, stretchFrom, stretchPlace } from './stretches';

/** The fastest mode that the lines keep as they are. */
function slower(context: CheckContext, { bus, sheet }: Stretch): readonly Remedy[] {
  const { fastest } = sheet.pullUps;
  if (!fastest || fastest.maxHz >= sheet.input.hz) return [];
  const settings = { ...context.plan.busSettings[bus.controller], hz: fastest.maxHz };
  const edits: readonly Edit[] = [{ kind: 'bus-settings', segment: bus.controller, settings }];
  return [{ label: 'slower', data: { hz: { is: 'quantity', value: fastest.maxHz, unit: 'Hz' } }, grade: 'offered', edits }];
}

const isWeak = ({ pullUps: { verdict } }: Stretch['sheet']): boolean => verdict === 'too-weak' || verdict === 'both';

function finding(context: CheckContext, stretch: Stretch): FindingDraft {
  const { pullUps, input } = stretch.sheet;
  const rise = pullUps.riseSeconds!.max;
  return {
    // A rise that is too slow only where every tolerance meets is felt by nobody: controllers wait until the clock line is high.
    level: stretchFrom(context, stretch, isWeak) === 'nominal' ? 'risk' : 'hint',
    message: !Number.isFinite(rise) ? 'never' : pullUps.windowOpen ? 'weak' : 'closed',
    place: stretchPlace(stretch),
    data: {
      bus: stretchDatum(stretch),
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
    remedies: () => [...broughtHigh(context, stretch), ...slower(context, stretch)],
  };
}

const why =
  'A line rises from 0.3 to 0.7 of the supply in 0.8473 · R · C, with every resistor at its most. Too slow a rise takes from the time in which data must be steady. Behind a level shifter both sides rise together first: the two capacitances on all pull-ups.';

export const pullupTooWeak: Check = {
  code: 'pullup-too-weak',
  question: 'Do the lines of every I2C bus rise in time for its clock?',
  messages: {
    weak: { title: '{bus}: pull-ups too weak for {hz}', text: 'The lines rise in {rise} at worst, {limit} are allowed.', why },
    closed: {
      title: '{bus}: no pull-up is right for {hz}',
      text: 'With {farads} the lines rise in {rise}, {limit} are allowed. The weakest part needs {least} at least, the rise {most} at most.',
      why: `${why} Here the window is empty: only a slower clock, less capacitance or a lower supply opens it.`,
    },
    never: { title: '{bus}: the lines never get high', text: 'They rest below 0.7 of the supply.', why },
  },
  remedies: {
    add: 'Add {ohms} on each line',
    shift: 'Put {parts} behind a level shifter ({shifter})',
    slower: 'Clock the bus at {hz}',
  },
  examine: (context) =>
    stretchesOf(context)
      .filter(({ sheet }) => isWeak(sheet))
      .map((stretch) => finding(context, stretch)),
};
