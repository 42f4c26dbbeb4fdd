import { wantedCapacitors } from '../../electrics/reports/railReport';
import { partOf } from '../../plan/edit';
import type { Check } from '../engine/check';

export const decouplingMissing: Check = {
  code: 'decoupling-missing',
  question: 'Does every part have its decoupling capacitors?',
  missing: 'resistor',
  messages: {
    none: {
      title: '{placement}: decoupling capacitor {farads} missing at {at}',
      text: 'It is not on the module and not in the plan.',
      why: 'A chip draws current in nanosecond pulses that long wires cannot supply; a capacitor beside its supply pins does. LED strips, motors and radios draw longer pulses and need more capacitance.',
    },
  },
  remedies: { put: 'Add it beside {placement}' },
  examine: ({ plan, sheets }) =>
    wantedCapacitors(plan, sheets).flatMap(({ placement, list, there }) => {
      if (there) return [];
      const largest = list.reduce((a, b) => (b.farads > a.farads ? b : a));
      const source = partOf(plan, placement, sheets)?.sheet.supply?.source;
      return [
        {
          level: 'hint',
          message: 'none',
          place: { placements: [placement], view: 'supply' },
          data: {
            placement: { is: 'placement', id: placement },
            farads: { is: 'quantity', value: largest.farads, unit: 'F' },
            at: { is: 'words', text: largest.at },
          },
          ...(source ? { source } : {}),
          remedies: () => [
            {
              label: 'put',
              data: { placement: { is: 'placement', id: placement } },
              grade: 'safe',
              edits: [{ kind: 'capacitors', placement, there: true }],
            },
          ],
        },
      ];
    }),
};
