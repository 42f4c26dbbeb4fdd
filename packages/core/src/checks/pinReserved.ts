import type { Check } from './check';
import { moveToFree } from './remedyParts';

export const pinReserved: Check = {
  code: 'pin-reserved',
  question: 'Is any wire on a pin that the board needs for itself?',
  messages: {
    reserved: {
      title: '{pin} is taken by the board',
      text: '{terminal} is wired to it. {trouble}',
      why: 'The board sheet marks this pin as reserved: something on the board already uses it.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine: (context) =>
    context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      // A pin is reserved for the very part that the board carries on it.
      if (pin?.grade !== 'reserved' || item.placement.onBoard) return [];
      return [
        {
          level: 'clash',
          message: 'reserved',
          place: { pins: [pin.id], terminals: [item.key] },
          data: {
            pin: { is: 'pin', pin: pin.id },
            terminal: { is: 'terminal', key: item.key },
            trouble: { is: 'words', text: pin.trouble ?? '' },
          },
          source: context.board.sheet.pins.source,
          remedies: () => moveToFree(context, item),
        },
      ];
    }),
};
