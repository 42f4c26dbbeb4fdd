import { partSheet } from '../../sheets/sheetIndex';
import type { Check } from '../engine/check';

export const ghostKeys: Check = {
  code: 'ghost-keys',
  question: 'Can every keypad report three pressed keys correctly?',
  messages: {
    ghosts: {
      title: '{placement}: ghost keys with three keys pressed (no diodes)',
      text: '{count} keys in a matrix without diodes: two keys are read correctly, three not always.',
      why: 'Three pressed keys at the corners of a rectangle connect its fourth corner through a reverse path. A diode at each key blocks it. A program that accepts one key at a time is not affected.',
    },
  },
  remedies: {},
  examine: ({ plan, sheets }) =>
    plan.placements.flatMap((placement) => {
      const keys = partSheet(sheets, placement.sheet)?.sheet.keys;
      if (keys?.as !== 'matrix' || keys.diodes) return [];
      return [
        {
          level: 'hint' as const,
          message: 'ghosts',
          place: { placements: [placement.id] },
          data: { placement: { is: 'placement', id: placement.id } as const, count: { is: 'count', value: keys.count } as const },
          source: keys.source,
          remedies: () => [],
        },
      ];
    }),
};
