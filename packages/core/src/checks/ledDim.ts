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
    worst: {
      title: '{placement} may stay dark with some supplies',
      text: 'At {low} with an LED of {high} it gets {least} on {terminals}; usually {amps}.',
      why: 'LEDs of one kind differ by some tenths of a volt, and so do supplies. Where both are at their worst, next to nothing is left to drive the current.',
    },
  },
  remedies: {},
  examine: ({ plan, sheets }) =>
    byPlacement(lampsOf(plan, sheets).filter((lamp) => lamp.ohms !== undefined && lamp.amps.min < SEEN)).map((lamps) => ({
      level: 'hint',
      message: lamps.some((lamp) => lamp.amps.typ! < SEEN) ? 'dim' : 'worst',
      place: lampPlace(lamps[0].placement),
      data: {
        ...lampData(lamps),
        supply: { is: 'volts', value: lamps[0].supply.typ ?? lamps[0].supply.min },
        forward: { is: 'volts', value: lamps[0].forwardVolts.typ ?? lamps[0].forwardVolts.min },
        amps: { is: 'quantity', value: lamps[0].amps.typ!, unit: 'A' },
        least: { is: 'quantity', value: lamps[0].amps.min, unit: 'A' },
        low: { is: 'volts', value: lamps[0].supply.min },
        high: { is: 'volts', value: lamps[0].forwardVolts.max },
      },
      remedies: () => [],
    })),
};
