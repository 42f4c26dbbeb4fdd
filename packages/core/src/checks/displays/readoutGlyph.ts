import { layoutText } from '../../displays/layout';
import { seenDisplays } from '../../displays/chainedDisplay';
import type { Check, FindingDraft } from '../engine/check';

/** More of them say nothing more. */
const MOST_LISTED = 8;

export const readoutGlyph: Check = {
  code: 'readout-glyph',
  question: 'Can every display show the characters of its text?',
  messages: {
    unknown: {
      title: '{display} cannot show {characters}',
      text: 'These characters are not available on this display.',
      why: 'Seven segments cannot show K, M, V, W and X. Character displays have the characters of their ROM and eight custom characters. Small pixel fonts usually hold the 95 printable ASCII characters.',
    },
    font: {
      title: '{display} has one character size',
      text: 'Its font is fixed: {times}× is not possible.',
      why: 'Character and segment displays have a fixed font. Only pixel displays can draw characters of any size.',
    },
  },
  remedies: { usual: 'Use its built-in size' },
  planWide: true,
  examine: ({ plan, sheets }) =>
    seenDisplays(plan, sheets).flatMap(({ placement, part }) => {
      const readout = plan.readouts[placement.id];
      const layout = readout ? layoutText(part, readout) : undefined;
      if (!readout || !layout) return [];
      const unknown = readout.text ? layout.unknown : [];
      const { scale = 1, ...rest } = readout;
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
          data: {
            display: { is: 'placement', id: placement.id },
            characters: { is: 'words', text: unknown.slice(0, MOST_LISTED).join(' ') },
          },
          remedies: () => [],
        },
      ];
    }),
};
