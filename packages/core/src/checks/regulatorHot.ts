import { supplySheets } from '../electrics/supplySheet';
import type { Check } from './check';

/** Above the air around it: 125 °C at the chip, 40 °C inside a case. */
const MOST_KELVIN = 85;

export const regulatorHot: Check = {
  code: 'regulator-hot',
  question: 'Does no regulator on the board get too hot?',
  whole: true,
  messages: {
    hot: {
      title: 'The regulator of {rail} gets {kelvin} K hotter than the air',
      text: '{watts} of heat: {drop} at {amps}, the board’s own current with it.',
      why: 'A linear regulator turns the voltage it takes away into heat: P = (Vin − Vout) · I, with the highest input and the average current. Its case gets rid of it at so many kelvin a watt; at 85 K above a warm case it reaches 125 °C and shuts down.',
    },
  },
  remedies: {},
  otherwise: 'Feed what takes most from a supply of its own, with the grounds joined, or from the rail before the regulator.',
  examine: ({ plan, sheets, board }) =>
    supplySheets(plan, sheets).flatMap(({ rail, regulator }) => {
      if (regulator?.kelvin === undefined || regulator.kelvin <= MOST_KELVIN) return [];
      return [
        {
          level: 'risk',
          message: 'hot',
          place: { view: 'supply', rails: [rail.id] },
          data: {
            rail: { is: 'rail', rail: rail.id },
            kelvin: { is: 'count', value: Math.round(regulator.kelvin) },
            watts: { is: 'quantity', value: regulator.watts, unit: 'W' },
            drop: { is: 'volts', value: regulator.dropVolts },
            amps: { is: 'quantity', value: regulator.milliamps / 1000, unit: 'A' },
          },
          source: board.sheet.rails.source,
          remedies: () => [],
        },
      ];
    }),
};
