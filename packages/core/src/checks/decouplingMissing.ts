import { wantedCapacitors } from '../electrics/supplySheet';
import { partOf } from '../plan/edit';
import type { Check } from './check';

export const decouplingMissing: Check = {
  code: 'decoupling-missing',
  question: 'Has every part the capacitors beside it that it asks for?',
  lacks: 'resistor',
  messages: {
    none: {
      title: '{placement} wants {farads} at {at}',
      text: 'It is not on the part, and not in the plan yet.',
      why: 'A chip takes its current in bursts of nanoseconds, and wires are too slow to bring it: a capacitor beside its supply gives it meanwhile. Lights, motors and radios take theirs in longer bursts and want a larger one.',
    },
  },
  remedies: { put: 'Put it beside {placement}' },
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
