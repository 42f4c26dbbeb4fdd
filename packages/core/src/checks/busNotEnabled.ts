import { enablingOf } from '../electrics/enabling';
import type { Check } from './check';

export const busNotEnabled: Check = {
  code: 'bus-not-enabled',
  question: 'Is every bus that a board’s system keeps switched off known to need switching on?',
  messages: {
    off: {
      title: '{bus} must be switched on',
      text: '{how}',
      why: 'On a board with an operating system a controller has no pins until the system is told to give it some. Accept this finding once it is done.',
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
