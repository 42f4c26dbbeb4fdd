import type { WireEnd } from '../../plan/plan';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { Check } from '../engine/check';
import { moveBus, moveToFree } from '../fixes/remedyParts';

const isReserved = (board: IndexedBoard, end: WireEnd | undefined): boolean =>
  end?.to === 'pin' && board.pins.get(end.pin)?.grade === 'reserved';

export const pinReserved: Check = {
  code: 'pin-reserved',
  harm: true,
  question: 'Is no wire on a pin that the board uses itself?',
  messages: {
    reserved: {
      title: '{pin} is used by the board itself',
      text: '{terminal} is connected to it. {trouble}',
      why: 'The board sheet marks this pin as reserved for a function on the board.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}', 'move-bus': 'Move the bus to {controller} ({pins})' },
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
          remedies: () => {
            const alone = moveToFree(context, item);
            return alone.length > 0
              ? alone
              : (moveBus(context, item, (after) => !isReserved(context.board, after.wires[item.key]?.end)) ?? []);
          },
        },
      ];
    }),
};
