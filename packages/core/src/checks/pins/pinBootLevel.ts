import { has } from '../../collections/has';
import { findOrThrow } from '../../collections/orThrow';
import { bootsWith, restLevel } from '../../assign/model/abilities';
import type { Check } from '../engine/check';
import { moveWhere } from '../fixes/remedyParts';

export const pinBootLevel: Check = {
  code: 'pin-boot-level',
  question: 'Is every boot pin at its required level during reset?',
  messages: {
    wrong: {
      title: '{pin} is a boot pin: {terminal} may prevent start-up',
      text: '{pin} must be {level} at reset; this line idles {rest}. {note}',
      why: 'The chip samples this pin at the end of reset. The board sheet gives the required level, the part sheet the idle level of the line.',
    },
    unknown: {
      title: '{pin} is a boot pin: idle level of {terminal} unknown',
      text: '{pin} must be {level} at reset. {note}',
      why: 'The chip samples this pin at the end of reset. A part that pulls it to the other level prevents the program from starting.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine: (context) =>
    context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      if (!pin || item.placement.onBoard || bootsWith(pin, item.part, item.terminal)) return [];
      const duty = findOrThrow((pin.duties ?? []).filter(has('level')), (d) => d.duty === 'boot');
      const rest = restLevel(item.part, item.terminal);
      return [
        {
          level: rest ? ('clash' as const) : ('risk' as const),
          message: rest ? 'wrong' : 'unknown',
          place: { pins: [pin.id], terminals: [item.key] },
          data: {
            pin: { is: 'pin' as const, pin: pin.id },
            terminal: { is: 'terminal' as const, key: item.key },
            level: { is: 'words' as const, text: duty.level },
            rest: { is: 'words' as const, text: rest ?? '' },
            note: { is: 'words' as const, text: duty.note },
          },
          source: context.board.sheet.pins.source,
          remedies: () => moveWhere(context, item, (other) => bootsWith(other, item.part, item.terminal)),
        },
      ];
    }),
};
