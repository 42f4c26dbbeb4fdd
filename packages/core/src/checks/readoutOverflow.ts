import type { Readout } from '../plan/plan';
import { layoutText } from '../readout/layout';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet } from '../sheets/sheetIndex';
import type { Check, Remedy } from './check';

/** The largest letters with which all of it is seen. */
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
  question: 'Does what a display is to show fit on it?',
  messages: {
    cut: {
      title: '{count} of the text of {display} cut off',
      text: 'There is room for {rows} of {columns}.',
      why: 'A display has so many columns and rows, on pixels by the size of the letters; round glass has fewer at its top and bottom. What is beyond is not shown.',
    },
  },
  remedies: { smaller: 'Take smaller letters', run: 'Let the text run through' },
  examine: ({ plan, sheets }) =>
    plan.placements.flatMap((placement) => {
      const readout = plan.readouts[placement.id];
      const part = partSheet(sheets, placement.sheet)?.sheet;
      const layout = readout?.text && part ? layoutText(part, readout) : undefined;
      if (!layout || layout.cut === 0) return [];
      return [
        {
          level: 'hint',
          message: 'cut',
          place: { placements: [placement.id], view: 'readout' },
          data: {
            display: { is: 'placement', id: placement.id },
            count: { is: 'count', value: layout.cut, noun: 'letter' },
            rows: { is: 'count', value: layout.rows, noun: 'row' },
            columns: { is: 'count', value: layout.columns, noun: 'letter' },
          },
          remedies: () => [...smaller(placement.id, part!, readout!), ...running(placement.id, part!, readout!)],
        },
      ];
    }),
};
