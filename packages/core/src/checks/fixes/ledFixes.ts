import type { LedReport } from '../../electrics/reports/ledReport';
import type { Edit } from '../../plan/edit';
import { splitKey } from '../../plan/plan';
import type { Data, Place, Remedy } from '../engine/check';

/** LEDs and loads by part. */
export function byPlacement(lamps: readonly LedReport[]): readonly (readonly [LedReport, ...LedReport[]])[] {
  const groups = new Map<string, [LedReport, ...LedReport[]]>();
  for (const lamp of lamps) {
    const group = groups.get(lamp.placement);
    if (group) group.push(lamp);
    else groups.set(lamp.placement, [lamp]);
  }
  return [...groups.values()];
}

/** The names of LEDs: their part, and for LEDs in series all parts. */
const lampNames = (lamps: readonly [LedReport, ...LedReport[]]): Data[string] =>
  lamps[0].anodes.length > 1
    ? { is: 'placements', ids: lamps[0].anodes.map((key) => splitKey(key).placement) }
    : { is: 'placement', id: lamps[0].placement };

/** The place of a finding about an LED. */
export const ledPlace = (placement: string): Place => ({ placements: [placement], view: 'resistors' });

/** The data of a finding about LEDs. */
export const ledData = (lamps: readonly [LedReport, ...LedReport[]]): Data => ({
  placement: lampNames(lamps),
  terminals: { is: 'labels', keys: lamps.map((lamp) => lamp.key) },
  count: { is: 'count', value: lamps.length, noun: 'wire' },
});

/** Fix that adds suitable series resistors. None if the values on hand do not suit all of them.
 *  @param label of the check; with `-each` where the values differ */
export function fitResistors(lamps: readonly LedReport[], label: string, grade: Remedy['grade']): readonly Remedy[] {
  const values = lamps.flatMap((lamp) => lamp.fitOhms ?? []);
  if (values.length < lamps.length) return [];
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const edits = lamps.map((lamp): Edit => ({ kind: 'series', ...splitKey(lamp.resistorAt), ohms: lamp.fitOhms! }));
  return [
    {
      label: least === most ? label : `${label}-each`,
      data: {
        ohms: { is: 'quantity', value: least, unit: 'Ω' },
        most: { is: 'quantity', value: most, unit: 'Ω' },
        count: { is: 'count', value: lamps.length, noun: 'wire' },
      },
      grade,
      edits,
    },
  ];
}

export const FIT_REMEDIES = { fit: 'Add {ohms} in {count}', 'fit-each': 'Add {ohms} to {most} in {count}' } as const;
