import { lampsOf } from '../electrics/lamps';
import { partOf } from '../plan/edit';
import type { Check, CheckContext } from './check';
import { byPlacement, FIT_REMEDIES, fitResistors, lampData, lampPlace } from './lampParts';

/** What an LED takes for good, in amperes. */
const limitOf = ({ plan, sheets }: CheckContext, id: string): number =>
  (partOf(plan, id, sheets)?.sheet.polarity?.maxMilliamps ?? Infinity) / 1000;

export const ledOverCurrent: Check = {
  code: 'led-over-current',
  harm: true,
  question: 'Does no LED get more current than it takes?',
  messages: {
    over: {
      title: '{placement} gets up to {amps} and takes {limit}',
      text: 'On {terminals}, at the worst corner of supply, LED and resistor.',
      why: 'I = (V − VF) / (R + output), with the supply at its highest, the forward voltage at its least, the resistor at its least and an output that drops nothing.',
    },
  },
  remedies: FIT_REMEDIES,
  examine: (context) =>
    byPlacement(
      lampsOf(context.plan, context.sheets).filter(
        (lamp) => lamp.ohms !== undefined && lamp.amps.max > limitOf(context, lamp.placement) * (1 + 1e-9),
      ),
    ).map((lamps) => {
      const limit = limitOf(context, lamps[0].placement);
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
