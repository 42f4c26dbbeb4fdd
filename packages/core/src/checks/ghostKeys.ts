import { partSheet } from '../sheets/sheetIndex';
import type { Check } from './check';

export const ghostKeys: Check = {
  code: 'ghost-keys',
  question: 'Are keypads that can show a key that nobody pressed known?',
  messages: {
    ghosts: {
      title: '{placement}: three keys can look like four',
      text: '{count} keys in rows and columns without diodes: two keys at once are told apart, three are not always.',
      why: 'Three keys at the corners of a rectangle connect its fourth corner, too: current goes backwards through one of them. With a diode at each key it cannot. A program that takes one key at a time never sees it.',
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
