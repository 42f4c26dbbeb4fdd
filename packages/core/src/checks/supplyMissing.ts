import { planTerminals } from '../nets/terminals';
import type { Check } from './check';

export const supplyMissing: Check = {
  code: 'supply-missing',
  question: 'Does every part hang on a rail that carries voltage?',
  messages: {
    input: {
      title: '{rail} gives {terminal} voltage only while something feeds it',
      text: 'It is an input of the board: {feed}',
      why: 'Rails that feed the board carry a voltage only while a supply hangs on them. On USB alone the part stays dark.',
    },
  },
  remedies: {},
  examine: (context) =>
    planTerminals(context.plan, context.sheets).flatMap((item) => {
      const id = item.terminal.role === 'supply.vcc' ? context.nets.byTerminal.get(item.key)?.rails[0] : undefined;
      const rail = context.board.sheet.rails.list.find((r) => r.id === id);
      if (rail?.direction !== 'in') return [];
      return [
        {
          level: 'hint',
          message: 'input',
          place: { terminals: [item.key], placements: [item.placement.id], view: 'supply' },
          data: {
            rail: { is: 'rail', rail: rail.id },
            terminal: { is: 'terminal', key: item.key },
            feed: { is: 'words', text: rail.feed },
          },
          source: context.board.sheet.rails.source,
          remedies: () => [],
        },
      ];
    }),
};
