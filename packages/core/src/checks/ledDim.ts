import { lampsOf } from '../electrics/lamps';
import { typical } from '../quantity/range';
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
    byPlacement(lampsOf(plan, sheets).filter((lamp) => lamp.ohms !== undefined && lamp.amps.min < SEEN)).map((lamps) => {
      const darkest = lamps.reduce((a, b) => (b.amps.typ! < a.amps.typ! ? b : a));
      return {
        level: 'hint',
        message: darkest.amps.typ! < SEEN ? 'dim' : 'worst',
        place: lampPlace(darkest.placement),
        data: {
          ...lampData(lamps),
          supply: { is: 'volts', value: typical(darkest.supply) },
          forward: { is: 'volts', value: typical(darkest.forwardVolts) },
          amps: { is: 'quantity', value: darkest.amps.typ!, unit: 'A' },
          least: { is: 'quantity', value: darkest.amps.min, unit: 'A' },
          low: { is: 'volts', value: darkest.supply.min },
          high: { is: 'volts', value: darkest.forwardVolts.max },
        },
        remedies: () => [],
      };
    }),
};
