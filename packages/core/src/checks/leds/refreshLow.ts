import { FLICKER_HZ } from '../../electrics/formulas/led';
import { ledReports } from '../../electrics/reports/ledReport';
import type { Check } from '../engine/check';
import { ledPlace } from '../fixes/ledFixes';

/** Refresh rate in Hz without visible flicker. */
const CALM_HZ = 100;

export const refreshLow: Check = {
  code: 'refresh-low',
  question: 'Is the refresh rate of every multiplexed display high enough?',
  messages: {
    flickers: {
      title: '{placement}: refresh rate {rate} Hz, flicker below {least} Hz',
      text: 'Flicker is visible.',
      why: 'frefresh = 1 / (N · tdwell). Below about 70 Hz most people see flicker, somewhat earlier in peripheral vision.',
    },
  },
  remedies: { faster: 'Set the refresh rate to {rate} Hz' },
  examine: ({ plan, sheets }) => {
    const shared = new Set(ledReports(plan, sheets).flatMap((led) => (led.digits > 1 ? [led.placement] : [])));
    return [...shared].flatMap((id) => {
      const rate = plan.rates[id];
      if (rate === undefined || rate >= FLICKER_HZ) return [];
      return [
        {
          level: 'hint',
          message: 'flickers',
          place: ledPlace(id),
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
