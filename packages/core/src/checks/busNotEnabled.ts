import { enablingOf } from '../electrics/enabling';
import type { Check } from './check';

export const busNotEnabled: Check = {
  code: 'bus-not-enabled',
  question: 'Is every bus enabled that the board’s operating system leaves disabled?',
  messages: {
    off: {
      title: '{bus} must be enabled',
      text: '{how}',
      why: 'Under an operating system a controller has no pins until its configuration assigns them. Accept this finding once that is done.',
    },
  },
  remedies: {},
  examine: ({ plan, sheets, board }) =>
    enablingOf(plan, sheets, board).map(({ bus, controller, words }) => ({
      level: 'hint' as const,
      message: 'off',
      place: { pins: Object.values(bus.pins), bus: controller },
      data: { bus: { is: 'stretch', controller } as const, how: { is: 'words', text: words } as const },
      source: board.sheet.enabling!.source,
      remedies: () => [],
    })),
};
