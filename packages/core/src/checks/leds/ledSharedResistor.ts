import { sharedResistors } from '../../electrics/reports/ledStrings';
import type { Check } from '../engine/check';
import { OWN_RESISTOR, ownResistors } from '../fixes/ownResistor';

/** Forward voltages of one type scatter within this; beyond it the LEDs are of different types, in volts. */
const SAME_TYPE = 0.4;

const why =
  'LEDs in parallel have one voltage between them, and an LED has next to no resistance above its forward voltage. The one with the lowest forward voltage conducts first and keeps the others below theirs, and no two LEDs are quite alike. With a resistor for each, the resistors set the currents: I = (V − VF) / R.';

export const ledSharedResistor: Check = {
  code: 'led-shared-resistor',
  question: 'Does every LED in parallel have its own resistor?',
  missing: 'resistor',
  messages: {
    dark: {
      title: '{terminals} share one resistor: only the lowest forward voltage lights',
      text: 'In parallel with forward voltages {apart} apart, nearly all current flows through the lowest.',
      why,
    },
    uneven: {
      title: '{terminals} share one resistor: uneven brightness',
      text: 'In parallel, the LED with the lowest forward voltage draws most of the current.',
      why,
    },
  },
  remedies: OWN_RESISTOR,
  otherwise: 'Unlock the wires of these LEDs, or connect each to the output with its own resistor.',
  examine: (context) =>
    sharedResistors(context.plan, context.sheets).map(({ at, others, apartVolts }) => {
      const keys = [at, ...others].map((item) => item.key);
      return {
        level: apartVolts > SAME_TYPE ? 'clash' : 'risk',
        message: apartVolts > SAME_TYPE ? 'dark' : 'uneven',
        place: { terminals: keys, view: 'resistors' },
        data: { terminals: { is: 'terminals', keys }, apart: { is: 'volts', value: apartVolts } },
        ...(at.part.polarity ? { source: at.part.polarity.source } : {}),
        remedies: () => ownResistors(context, at, others),
      };
    }),
};
