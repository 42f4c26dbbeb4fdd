import { has } from '../../collections/has';
import type { LedReport } from '../../electrics/reports/ledReport';
import type { Edit } from '../../plan/edit';
import { splitKey } from '../../plan/plan';
import type { Data, Place, Remedy } from '../engine/check';

/** LEDs and loads by part. */
export function byPlacement(leds: readonly LedReport[]): readonly (readonly [LedReport, ...LedReport[]])[] {
  const groups = new Map<string, [LedReport, ...LedReport[]]>();
  for (const led of leds) {
    const group = groups.get(led.placement);
    if (group) group.push(led);
    else groups.set(led.placement, [led]);
  }
  return [...groups.values()];
}

/** The names of LEDs: their part, and for LEDs in series all parts. */
const ledNames = (leds: readonly [LedReport, ...LedReport[]]): Data[string] =>
  leds[0].anodes.length > 1
    ? { is: 'placements', ids: leds[0].anodes.map((key) => splitKey(key).placement) }
    : { is: 'placement', id: leds[0].placement };

/** The place of a finding about an LED. */
export const ledPlace = (placement: string): Place => ({ placements: [placement], view: 'resistors' });

/** The data of a finding about LEDs. */
export const ledData = (leds: readonly [LedReport, ...LedReport[]]): Data => ({
  placement: ledNames(leds),
  terminals: { is: 'labels', keys: leds.map((led) => led.key) },
  count: { is: 'count', value: leds.length, noun: 'wire' },
});

/** Fix that adds suitable series resistors. None if the values on hand do not suit all of them.
 *  @param label of the check; with `-each` where the values differ */
export function fitResistors(leds: readonly LedReport[], label: string, grade: Remedy['grade']): readonly Remedy[] {
  const fitted = leds.filter(has('fitOhms'));
  if (fitted.length < leds.length) return [];
  const values = fitted.map((led) => led.fitOhms);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const edits = fitted.map((led): Edit => ({ kind: 'series', ...splitKey(led.resistorAt), ohms: led.fitOhms }));
  return [
    {
      label: least === most ? label : `${label}-each`,
      data: {
        ohms: { is: 'quantity', value: least, unit: 'Ω' },
        most: { is: 'quantity', value: most, unit: 'Ω' },
        count: { is: 'count', value: leds.length, noun: 'wire' },
      },
      grade,
      edits,
    },
  ];
}

export const FIT_REMEDIES = { fit: 'Add {ohms} in {count}', 'fit-each': 'Add {ohms} to {most} in {count}' } as const;
