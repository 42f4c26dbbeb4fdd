import { firstOrThrow } from '../../collections/orThrow';
import { logicVolts } from '../../electrics/reports/busInputs';
import { type LedReport, ledReports } from '../../electrics/reports/ledReport';
import { typical } from '../../quantity/range';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { rewire } from '../fixes/remedyParts';
import { byPlacement, ledData, ledPlace } from '../fixes/ledFixes';

/** The supplies of the LEDs to the logic supply, where a high pin leaves no voltage across them. */
function toLogic({ terminals, board }: CheckContext, leds: readonly LedReport[]): readonly Remedy[] {
  const rail = board.sheet.logicRail;
  return terminals
    .filter((item) => item.placement.id === firstOrThrow(leds).placement && item.terminal.role === 'supply.vcc' && !item.wire?.locked)
    .map((item) => rewire(item, { to: 'rail', rail }, { label: 'to-rail', data: { rail: { is: 'rail', rail } } }));
}

/** What is left across an LED whose pin is high, in volts: with nominal supplies, and at most. */
function leftOver(context: CheckContext, { supply }: LedReport): { readonly nominal: number; readonly most: number } {
  const logic = logicVolts(context.board);
  return { nominal: typical(supply) - typical(logic), most: supply.max - logic.min };
}

function finding(context: CheckContext, leds: readonly [LedReport, ...LedReport[]]): readonly FindingDraft[] {
  const [led] = leds;
  const { nominal, most } = leftOver(context, led);
  if (led.driver.by !== 'pin' || most <= led.forwardVolts.min) return [];
  const isOn = nominal >= typical(led.forwardVolts);
  return [
    {
      level: isOn ? 'clash' : 'risk',
      message: isOn ? 'on' : 'glows',
      place: ledPlace(led.placement),
      data: {
        ...ledData(leds),
        pin: { is: 'pin', pin: led.driver.pin },
        supply: { is: 'volts', value: typical(led.supply) },
        nominal: { is: 'volts', value: nominal },
        most: { is: 'volts', value: most },
        least: { is: 'volts', value: led.forwardVolts.min },
        forward: { is: 'volts', value: typical(led.forwardVolts) },
      },
      source: context.board.sheet.electrical.source,
      remedies: () => toLogic(context, leds),
    },
  ];
}

const why =
  'An active-low LED is off only while VSUPPLY − VOH < VF. With a supply above the I/O voltage a high pin leaves a voltage across the LED, and before the program starts the pin is pulled up to VSUPPLY − VF.';

export const ledNeverOff: Check = {
  code: 'led-never-off',
  question: 'Does every LED that a pin sinks go off when the pin is high?',
  messages: {
    on: {
      title: '{placement} stays on: {nominal} across the LED with {pin} high, forward voltage {forward}',
      text: 'Its supply of {supply} is too far above the I/O voltage.',
      why,
    },
    glows: {
      title: '{placement} may glow when off: up to {most} across the LED, forward voltage from {least}',
      text: 'With {pin} high {nominal} nominal remain across the LED.',
      why,
    },
  },
  remedies: { 'to-rail': 'Connect {terminal} to {rail}' },
  otherwise: 'Switch the LED with an NPN transistor or an N-MOSFET to ground; its supply may then be above the I/O voltage.',
  examine: (context) => {
    const sunk = ledReports(context.plan, context.sheets).filter(({ sinks, driver }) => sinks && driver.by === 'pin');
    return byPlacement(sunk).flatMap((leds) => {
      // The LED of lowest forward voltage is the last to go off.
      const [first, ...others] = leds.toSorted((a, b) => a.forwardVolts.min - b.forwardVolts.min) as [LedReport, ...LedReport[]];
      const above = others.filter((led) => leftOver(context, led).most > led.forwardVolts.min);
      return finding(context, [first, ...above]);
    });
  },
};
