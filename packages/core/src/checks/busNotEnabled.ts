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
  examine: ({ board, buses }) => {
    const { enabling } = board.sheet;
    return buses.flatMap((bus) => {
      const entry = enabling?.list.find((one) => one.controller === bus.controller);
      if (!enabling || !entry) return [];
      return [
        {
          level: 'hint' as const,
          message: 'off',
          place: { pins: Object.values(bus.pins), bus: entry.controller },
          data: { bus: { is: 'stretch', controller: entry.controller } as const, how: { is: 'words', text: entry.words } as const },
          source: enabling.source,
          remedies: () => [],
        },
      ];
    });
  },
};
