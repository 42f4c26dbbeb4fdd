import { type LedReport, ledReports } from '../../electrics/reports/ledReport';
import { typical } from '../../quantity/range';
import type { Check, CheckContext, Remedy } from '../engine/check';
import { byPlacement, ledData, ledPlace } from '../fixes/ledFixes';
import { OWN_RESISTOR, ownResistors } from '../fixes/ownResistor';

/** Below this even a bright LED is hardly seen by day, in amperes. */
const SEEN = 0.5e-3;

/** LEDs of a string side by side at the same output instead: each has the whole supply then. */
function sideBySide(context: CheckContext, { anodes }: LedReport): readonly Remedy[] {
  const items = anodes.flatMap((key) => context.terminals.filter((item) => item.key === key));
  const [first, ...others] = items;
  return first && others.length > 0 ? ownResistors(context, first, others, true) : [];
}

export const ledDim: Check = {
  code: 'led-dim',
  question: 'Is the supply of every LED above its forward voltage?',
  messages: {
    dark: {
      title: '{placement} will not light: supply {supply}, forward voltage {forward}',
      text: 'No current flows at {terminals}.',
      why: 'LEDs in series add up their forward voltages, and the supply must be above the sum: I = (V − ΣVF) / R. Side by side, each with its own resistor, every LED has the whole supply.',
    },
    dim: {
      title: '{placement} may not light: supply {supply}, forward voltage {forward}',
      text: 'Only {amps} at {terminals}.',
      why: 'I = (V − VF) / R. With V close to VF, the current depends on the tolerance of the supply and of the LED. Blue, white and green LEDs need about 3 V or more.',
    },
    worst: {
      title: '{placement} may be dim: {least} in the worst case',
      text: 'Supply {low}, forward voltage {high}: {least} at {terminals}; nominal {amps}.',
      why: 'I = (V − VF) / R. VF differs by some tenths of a volt between LEDs of one type, and so does the supply; in the worst case little remains across R.',
    },
  },
  remedies: OWN_RESISTOR,
  otherwise:
    'Use an LED with a lower forward voltage, or switch it with a transistor from a supply that is higher than its forward voltage.',
  examine: (context) =>
    byPlacement(ledReports(context.plan, context.sheets).filter((led) => led.ohms !== undefined && led.amps.min < SEEN)).map((leds) => {
      const darkest = leds.reduce((a, b) => (typical(b.amps) < typical(a.amps) ? b : a));
      const amps = typical(darkest.amps);
      return {
        level: amps > 0 ? 'hint' : 'clash',
        message: amps === 0 ? 'dark' : amps < SEEN ? 'dim' : 'worst',
        place: ledPlace(darkest.placement),
        data: {
          ...ledData(leds),
          supply: { is: 'volts', value: typical(darkest.supply) },
          forward: { is: 'volts', value: typical(darkest.forwardVolts) },
          amps: { is: 'quantity', value: amps, unit: 'A' },
          least: { is: 'quantity', value: darkest.amps.min, unit: 'A' },
          low: { is: 'volts', value: darkest.supply.min },
          high: { is: 'volts', value: darkest.forwardVolts.max },
        },
        remedies: () => sideBySide(context, darkest),
      };
    }),
};
