import { lampsOf } from '../electrics/lamps';
import type { Check } from './check';
import { byPlacement, FIT_REMEDIES, fitResistors, lampData, lampPlace } from './lampParts';

export const ledNoResistor: Check = {
  code: 'led-no-resistor',
  question: 'Has every LED a resistor?',
  lacks: 'resistor',
  messages: {
    none: {
      title: '{placement} has no resistor',
      text: 'On {terminals}; nothing but the output limits the current.',
      why: 'An LED keeps its forward voltage whatever the current is. What the supply has above that must fall across a resistor: R = (V − VF) / I. Without one, the output and the LED take as much as they can, and one of them does not for long.',
    },
  },
  remedies: FIT_REMEDIES,
  examine: ({ plan, sheets }) =>
    byPlacement(lampsOf(plan, sheets).filter((lamp) => lamp.ohms === undefined && lamp.amps.max > 0)).map((lamps) => ({
      level: 'clash',
      message: 'none',
      place: lampPlace(lamps[0].placement),
      data: lampData(lamps),
      remedies: () => fitResistors(lamps, 'fit', 'safe'),
    })),
};
