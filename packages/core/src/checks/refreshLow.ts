import { FLICKER_HZ } from '../electrics/led';
import { lampsOf } from '../electrics/lamps';
import type { Check } from './check';
import { lampPlace } from './lampParts';

/** Rounds a second that nobody sees. */
const CALM_HZ = 100;

export const refreshLow: Check = {
  code: 'refresh-low',
  question: 'Is every display of several digits lit in turn fast enough not to flicker?',
  messages: {
    flickers: {
      title: '{placement} is lit {rate} times a second',
      text: 'Below {least} most people see flicker.',
      why: 'Digits are lit one after another: a round takes digits · dwell. Below about 70 rounds a second it flickers, at the edge of the eye a little earlier.',
    },
  },
  remedies: { faster: 'Light it {rate} times a second' },
  examine: ({ plan, sheets }) => {
    const shared = new Set(lampsOf(plan, sheets).flatMap((lamp) => (lamp.digits > 1 ? [lamp.placement] : [])));
    return [...shared].flatMap((id) => {
      const rate = plan.rates[id];
      if (rate === undefined || rate >= FLICKER_HZ) return [];
      return [
        {
          level: 'hint',
          message: 'flickers',
          place: lampPlace(id),
          data: {
            placement: { is: 'placement', id },
            rate: { is: 'count', value: rate },
            least: { is: 'count', value: FLICKER_HZ },
          },
          remedies: () => [
            {
              label: 'faster',
              data: { rate: { is: 'count', value: CALM_HZ } },
              grade: 'offered',
              edits: [{ kind: 'rate', placement: id, perSecond: CALM_HZ }],
            },
          ],
        },
      ];
    });
  },
};
