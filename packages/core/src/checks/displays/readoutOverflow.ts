import type { Readout } from '../../plan/plan';
import { layoutText } from '../../displays/layout';
import type { PartSheet } from '../../sheets/partSheet';
import { seenDisplays } from '../../displays/chainedDisplay';
import type { Check, Remedy } from '../engine/check';

/** The largest text scale at which everything fits. */
function smaller(placement: string, part: PartSheet, readout: Readout): readonly Remedy[] {
  const now = readout.scale ?? 1;
  for (let scale = now - 1; scale >= 1; scale -= 1)
    if (layoutText(part, { ...readout, scale })?.cut === 0)
      return [{ label: 'smaller', data: {}, grade: 'offered', edits: [{ kind: 'readout', placement, readout: { ...readout, scale } }] }];
  return [];
}

/** On one row a long text may run through. */
function running(placement: string, part: PartSheet, readout: Readout): readonly Remedy[] {
  const runs = { ...readout, scroll: true as const };
  const layout = layoutText(part, runs);
  if (layout?.cut !== 0 || layout.rows > 1) return [];
  return [{ label: 'run', data: {}, grade: 'offered', edits: [{ kind: 'readout', placement, readout: runs }] }];
}

export const readoutOverflow: Check = {
  code: 'readout-overflow',
  question: 'Does the text fit on every display?',
  messages: {
    cut: {
      title: '{display}: {count} of the text cut off',
      text: 'Capacity: {rows} of {columns}.',
      why: 'On pixel displays the number of columns and rows follows from the character size; round displays have fewer columns at the top and bottom. Text beyond that is not shown.',
    },
  },
  remedies: { smaller: 'Use smaller characters', run: 'Scroll the text' },
  planWide: true,
  examine: ({ plan, sheets }) =>
    seenDisplays(plan, sheets).flatMap(({ placement, part }) => {
      const readout = plan.readouts[placement.id];
      const layout = readout?.text ? layoutText(part, readout) : undefined;
      if (!readout || !layout || layout.cut === 0) return [];
      return [
        {
          level: 'hint',
          message: 'cut',
          place: { placements: [placement.id], view: 'readout' },
          data: {
            display: { is: 'placement', id: placement.id },
            count: { is: 'count', value: layout.cut, noun: 'character' },
            rows: { is: 'count', value: layout.rows, noun: 'row' },
            columns: { is: 'count', value: layout.columns, noun: 'character' },
          },
          remedies: () => [...smaller(placement.id, part, readout), ...running(placement.id, part, readout)],
        },
      ];
    }),
};
