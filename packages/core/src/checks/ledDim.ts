import { lampsOf } from '../electrics/lamps';
import type { Check } from './check';
import { byPlacement, lampData, lampPlace } from './lampParts';

/** Below this even a bright LED is hardly seen by day, in amperes. */
const SEEN = 0.5e-3;

export const ledDim: Check = {
  code: 'led-dim',
  question: 'Is there enough voltage for every LED to light?',
  messages: {
    dim: {
      title: '{placement} may stay dark',
      text: '{supply} for {forward} of forward voltage: {amps} on {terminals}.',
      why: 'What the supply has above the forward voltage drives the current. Where there is next to nothing, the LED lights with one supply and not with another. Blue, white and green ones want 3 V and more.',
    },
  },
  remedies: {},
  examine: ({ plan, sheets }) =>
    byPlacement(lampsOf(plan, sheets).filter((lamp) => lamp.ohms !== undefined && lamp.amps.typ! < SEEN)).map((lamps) => ({
      level: 'hint',
      message: 'dim',
      place: lampPlace(lamps[0].placement),
      data: {
        ...lampData(lamps),
        supply: { is: 'volts', value: lamps[0].supply.typ ?? lamps[0].supply.min },
        forward: { is: 'volts', value: lamps[0].forwardVolts.typ ?? lamps[0].forwardVolts.min },
        amps: { is: 'quantity', value: lamps[0].amps.typ!, unit: 'A' },
      },
      remedies: () => [],
    })),
};
