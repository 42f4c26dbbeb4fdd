import { layoutText } from '../readout/layout';
import { partSheet } from '../sheets/sheetIndex';
import type { Check } from './check';

/** More of them say nothing more. */
const TOLD = 8;

export const readoutGlyph: Check = {
  code: 'readout-glyph',
  question: 'Can every display show the letters of its text?',
  messages: {
    unknown: {
      title: '{display} cannot show {letters}',
      text: 'It has no form for that.',
      why: 'Seven segments have no form for K, M, V, W and X. Character displays have the letters of their ROM, and places for eight of your own. Small fonts for pixels stop at the 95 letters of ASCII.',
    },
  },
  remedies: {},
  examine: ({ plan, sheets }) =>
    plan.placements.flatMap((placement) => {
      const readout = plan.readouts[placement.id];
      const part = partSheet(sheets, placement.sheet)?.sheet;
      const unknown = readout?.text && part ? (layoutText(part, readout)?.unknown ?? []) : [];
      if (unknown.length === 0) return [];
      return [
        {
          level: 'hint',
          message: 'unknown',
          place: { placements: [placement.id], view: 'readout' },
          data: { display: { is: 'placement', id: placement.id }, letters: { is: 'words', text: unknown.slice(0, TOLD).join(' ') } },
          remedies: () => [],
        },
      ];
    }),
};
