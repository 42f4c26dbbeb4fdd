import { type AnalogSource, analogSources } from '../../electrics/reports/analogSource';
import { valuesWithin } from '../../quantity/series';
import type { Check, CheckContext, Remedy } from '../engine/check';

/** A smaller fixed resistor: the largest on hand with which the input settles. */
function smaller({ plan }: CheckContext, { item, set, maxOhms }: AnalogSource): readonly Remedy[] {
  const pull = plan.pulls[item.key];
  const ohms = valuesWithin(plan.valuesOnHand, 100, 1e6).findLast((value) => value <= maxOhms);
  if (set !== 'pull' || !pull || ohms === undefined) return [];
  return [
    {
      label: 'smaller',
      data: { ohms: { is: 'quantity', value: ohms, unit: 'Ω' }, terminal: { is: 'terminal', key: item.key } },
      grade: 'offered',
      edits: [{ kind: 'pull', placement: item.placement.id, terminal: item.terminal.id, pull: { ...pull, ohms } }],
    },
  ];
}

export const adcSourceHigh: Check = {
  code: 'adc-source-high',
  question: 'Is the source resistance of every analog input within its limit?',
  messages: {
    high: {
      title: '{terminal}: source resistance {ohms}, limit {limit}',
      text: 'Readings at {pin} may depend on the pin read before.',
      why: 'The converter charges a small capacitor from the source while it samples. Through a higher resistance than the datasheet states, the capacitor does not settle within the sampling time.',
    },
  },
  remedies: { smaller: 'Set the resistor at {terminal} to {ohms}' },
  otherwise: 'Add 100 nF from the pin to ground beside the board, or read twice and discard the first reading.',
  examine: (context) =>
    analogSources(context.plan, context.sheets)
      .filter(({ ohms, maxOhms }) => ohms > maxOhms * (1 + 1e-9))
      .map((source) => ({
        level: 'hint',
        message: 'high',
        place: { terminals: [source.item.key], pins: [source.pin], view: 'resistors' },
        data: {
          terminal: { is: 'terminal', key: source.item.key },
          pin: { is: 'pin', pin: source.pin },
          ohms: { is: 'quantity', value: source.ohms, unit: 'Ω' },
          limit: { is: 'quantity', value: source.maxOhms, unit: 'Ω' },
        },
        ...(context.board.sheet.analog ? { source: context.board.sheet.analog.source } : {}),
        remedies: () => smaller(context, source),
      })),
};
