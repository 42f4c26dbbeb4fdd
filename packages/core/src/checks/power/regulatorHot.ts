import { railReports } from '../../electrics/reports/railReport';
import type { Check } from '../engine/check';

/** Above the air around it: 125 °C at the chip, 40 °C inside a case. */
const MOST_KELVIN = 85;

export const regulatorHot: Check = {
  code: 'regulator-hot',
  question: 'Is the temperature rise of every regulator acceptable?',
  planWide: true,
  messages: {
    hot: {
      title: '{rail} regulator: {kelvin} K temperature rise',
      text: 'Dissipation {watts}: {drop} drop at {amps}, including the board’s own current.',
      why: 'P = (Vin − Vout) · I with the highest input voltage and the average current; ΔT = P · θJA. At 85 K above a warm enclosure (40 °C) the junction reaches 125 °C and the regulator shuts down.',
    },
  },
  remedies: {},
  otherwise: 'Power the largest load from a separate supply with common ground, or from the rail before the regulator.',
  examine: ({ plan, sheets, board }) =>
    railReports(plan, sheets).flatMap(({ rail, regulator }) => {
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
