import { adcBlocked } from '../../assign/fit/pinFit';
import type { Check } from '../engine/check';
import { moveWhere } from '../fixes/remedyParts';

export const adcUnavailable: Check = {
  code: 'adc-unavailable',
  question: 'Is every analog input usable while the radio is on?',
  messages: {
    radio: {
      title: '{terminal}: analog input unavailable while the radio is on',
      text: '{pin} belongs to {unit}. {note}',
      why: 'The plan is marked as using the radio ({kinds}). The board sheet lists the ADC unit that the radio driver occupies.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}', 'no-radio': 'Mark the radio as not used' },
  examine: (context) =>
    context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      const { radio } = context.board.sheet;
      if (!pin?.adc || !radio || !adcBlocked(context.plan, context.board, pin, [item])) return [];
      return [
        {
          level: 'clash' as const,
          message: 'radio',
          place: { pins: [pin.id], terminals: [item.key] },
          data: {
            terminal: { is: 'terminal' as const, key: item.key },
            pin: { is: 'pin' as const, pin: pin.id },
            unit: { is: 'words' as const, text: pin.adc.unit.toUpperCase() },
            kinds: { is: 'words' as const, text: radio.kinds },
            note: { is: 'words' as const, text: radio.note ?? '' },
          },
          source: radio.source,
          remedies: () => [
            ...moveWhere(context, item, (other) => !adcBlocked(context.plan, context.board, other, [item])),
            { label: 'no-radio', data: {}, grade: 'offered' as const, edits: [{ kind: 'radio' as const, on: false }] },
          ],
        },
      ];
    }),
};
