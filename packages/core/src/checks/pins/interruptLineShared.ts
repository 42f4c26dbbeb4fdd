import type { Check } from '../engine/check';
import { resourceUsers, moveApart, pairsOn } from './sharedResources';

export const interruptLineShared: Check = {
  code: 'interrupt-line-shared',
  question: 'Does every interrupt signal have its own interrupt line?',
  planWide: true,
  messages: {
    shared: {
      title: '{terminals} share one interrupt line',
      text: '{pins} map to one interrupt line; only one of them can be enabled.',
      why: 'The chip connects each external interrupt line to one port at a time.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine(context) {
    const users = resourceUsers(context);
    return pairsOn(users, 'interrupt').map((pair) => {
      const [a, b] = pair.users;
      return {
        level: 'clash' as const,
        message: 'shared',
        place: { pins: [a.pin.id, b.pin.id], terminals: [a.item.key, b.item.key] },
        data: {
          terminals: { is: 'terminals' as const, keys: [a.item.key, b.item.key] },
          pins: { is: 'pins' as const, pins: [a.pin.id, b.pin.id] },
        },
        source: context.board.sheet.pins.source,
        remedies: () =>
          moveApart(context, users, pair, (_, resources, other) =>
            resources.some((id) => id.startsWith('interrupt ') && other.resources.includes(id)),
          ),
      };
    });
  },
};
