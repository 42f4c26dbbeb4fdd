import { type LedReport, ledReports } from '../../electrics/reports/ledReport';
import { type SetDriver, setDriversOf } from '../../electrics/reports/setDrivers';
import { partOf } from '../../plan/edit';
import { splitKey, type TerminalKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { byPlacement, FIT_REMEDIES, fitResistors, ledData, ledPlace } from '../fixes/ledFixes';

const ledFinding = (leds: readonly [LedReport, ...LedReport[]]): FindingDraft => ({
  level: 'clash',
  message: 'none',
  place: ledPlace(leds[0].placement),
  data: ledData(leds),
  remedies: () => fitResistors(leds, 'fit', 'safe'),
});

/** A driver whose segments get their current by a resistor that is not there. */
function driverFinding(
  { plan, sheets }: CheckContext,
  { key, placement, fitOhms }: SetDriver & { readonly key: TerminalKey },
): FindingDraft {
  const source = partOf(plan, placement, sheets)?.sheet.currentSet?.source;
  const terminal = { is: 'labels' as const, keys: [key] };
  return {
    level: 'clash',
    message: 'set',
    place: ledPlace(placement),
    data: { placement: { is: 'placement', id: placement }, terminal },
    ...(source ? { source } : {}),
    remedies: () =>
      fitOhms === undefined
        ? []
        : [
            {
              label: 'set',
              data: { ohms: { is: 'quantity', value: fitOhms, unit: 'Ω' }, terminal },
              grade: 'safe',
              edits: [{ kind: 'series', ...splitKey(key), ohms: fitOhms }],
            },
          ],
  };
}

export const ledNoResistor: Check = {
  code: 'led-no-resistor',
  question: 'Does every LED have a series resistor?',
  missing: 'resistor',
  messages: {
    none: {
      title: '{placement}: no series resistor',
      text: 'At {terminals}; only the output limits the current.',
      why: 'R = (V − VF) / I. The forward voltage of an LED hardly changes with current, so a resistor must drop the rest. Without it, the current exceeds the absolute maximum of the LED or of the output.',
    },
    set: {
      title: '{placement}: no current-setting resistor at {terminal}',
      text: 'It sets the segment current.',
      why: 'The segment current is a multiple of the current through RSET. The datasheet lists RSET against segment current and forward voltage; the next value up gives less current.',
    },
  },
  remedies: { ...FIT_REMEDIES, set: 'Add {ohms} at {terminal}' },
  examine: (context) => [
    ...byPlacement(ledReports(context.plan, context.sheets).filter((led) => led.ohms === undefined && led.amps.max > 0)).map(ledFinding),
    ...setDriversOf(context.plan, context.sheets).flatMap((driver) =>
      driver.ohms === undefined && driver.key !== undefined ? [driverFinding(context, { ...driver, key: driver.key })] : [],
    ),
  ],
};
