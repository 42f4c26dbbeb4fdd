import { lampsOf } from '../electrics/lamps';
import { partOf } from '../plan/edit';
import type { Check } from './check';
import { byPlacement, FIT_REMEDIES, fitResistors, lampData, lampPlace } from './lampParts';

export const ledOverCurrent: Check = {
  code: 'led-over-current',
  harm: true,
  question: 'Is the current of every LED below its maximum?',
  messages: {
    over: {
      title: 'LED over-current: {placement} up to {amps}, maximum {limit}',
      text: 'At {terminals}, worst case of supply, forward voltage and resistor.',
      why: 'I = (V − VF) / (R + Rout) with V at its maximum, VF, R and Rout at their minimum.',
    },
  },
  remedies: FIT_REMEDIES,
  examine: (context) =>
    byPlacement(
      lampsOf(context.plan, context.sheets).filter((lamp) => lamp.ohms !== undefined && lamp.amps.max > lamp.ledAmps * (1 + 1e-9)),
    ).map((lamps) => {
      const limit = Math.min(...lamps.map((lamp) => lamp.ledAmps));
      const source = partOf(context.plan, lamps[0].placement, context.sheets)?.sheet.polarity?.source;
      return {
        level: lamps.some((lamp) => lamp.amps.typ! > limit) ? 'clash' : 'risk',
        message: 'over',
        place: lampPlace(lamps[0].placement),
        data: {
          ...lampData(lamps),
          amps: { is: 'quantity', value: Math.max(...lamps.map((lamp) => lamp.amps.max)), unit: 'A' },
          limit: { is: 'quantity', value: limit, unit: 'A' },
        },
        ...(source ? { source } : {}),
        remedies: () => fitResistors(lamps, 'fit', 'offered'),
      };
    }),
};
