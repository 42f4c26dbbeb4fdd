import { layoutText } from '../readout/layout';
import { partSheet } from '../sheets/sheetIndex';
import type { Check, FindingDraft } from './check';

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
    font: {
      title: '{display} has letters of one size',
      text: 'Its font is built in: {times} times as large is not possible.',
      why: 'Displays of characters and digits show the letters of their own chip or glass. Only displays of pixels draw letters of any size.',
    },
  },
  remedies: { usual: 'Take its own letters' },
  examine: ({ plan, sheets }) =>
    plan.placements.flatMap((placement) => {
      const readout = plan.readouts[placement.id];
      const part = partSheet(sheets, placement.sheet)?.sheet;
      const layout = readout && part ? layoutText(part, readout) : undefined;
      if (!layout) return [];
      const unknown = readout!.text ? layout.unknown : [];
      const { scale = 1, ...rest } = readout!;
      const fonts: readonly FindingDraft[] = layout.oneFont
        ? [
            {
              level: 'hint',
              message: 'font',
              place: { placements: [placement.id], view: 'readout' },
              data: { display: { is: 'placement', id: placement.id }, times: { is: 'count', value: scale } },
              remedies: () => [
                {
                  label: 'usual',
                  data: {},
                  grade: 'offered',
                  edits: [{ kind: 'readout', placement: placement.id, readout: Object.keys(rest).length > 0 ? rest : null }],
                },
              ],
            },
          ]
        : [];
      if (unknown.length === 0) return fonts;
      return [
        ...fonts,
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
