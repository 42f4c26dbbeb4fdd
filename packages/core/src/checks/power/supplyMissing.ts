import { planTerminals } from '../../nets/terminals';
import type { Check } from '../engine/check';

export const supplyMissing: Check = {
  code: 'supply-missing',
  question: 'Is every part connected to a rail that carries voltage?',
  messages: {
    input: {
      title: '{rail} is a supply input: {terminal} is unpowered without it',
      text: 'Board input: {feed}',
      why: 'A supply input carries voltage only while a supply is connected to it. On USB alone the part is not powered.',
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
