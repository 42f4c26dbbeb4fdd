import { bootsWith, restLevel } from '../allocate/abilities';
import type { Check } from './check';
import { moveWhere } from './remedyParts';

export const pinBootLevel: Check = {
  code: 'pin-boot-level',
  question: 'Could a part hold a pin at the wrong level while the board starts?',
  messages: {
    wrong: {
      title: '{terminal} may keep the board from starting',
      text: '{pin} must be {level} at reset, and this line rests {rest}. {note}',
      why: 'The chip reads this pin when it comes out of reset. The sheets give the level it must have and the level at which the line rests.',
    },
    unknown: {
      title: '{terminal} is on a pin that is read at reset',
      text: '{pin} must be {level} at reset; how this line rests nobody knows. {note}',
      why: 'The chip reads this pin when it comes out of reset. A part that pulls it the other way keeps the board from starting its program.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine: (context) =>
    context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      if (!pin || item.placement.onBoard || bootsWith(pin, item.part, item.terminal)) return [];
      const duty = pin.duties!.find((d) => d.duty === 'boot' && d.level)!;
      const rest = restLevel(item.part, item.terminal);
      return [
        {
          level: rest ? ('clash' as const) : ('risk' as const),
          message: rest ? 'wrong' : 'unknown',
          place: { pins: [pin.id], terminals: [item.key] },
          data: {
            pin: { is: 'pin' as const, pin: pin.id },
            terminal: { is: 'terminal' as const, key: item.key },
            level: { is: 'words' as const, text: duty.level! },
            rest: { is: 'words' as const, text: rest ?? '' },
            note: { is: 'words' as const, text: duty.note },
          },
          source: context.board.sheet.pins.source,
          remedies: () => moveWhere(context, item, (other) => bootsWith(other, item.part, item.terminal)),
        },
      ];
    }),
};
