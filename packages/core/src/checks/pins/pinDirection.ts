import { PIN_ROLES } from '../../sheets/roles';
import type { Check } from '../engine/check';
import { moveWhere } from '../fixes/remedyParts';

export const pinDirection: Check = {
  code: 'pin-direction',
  question: 'Is the hardware chip select of a controller in use not an input?',
  planWide: true,
  messages: {
    select: {
      title: '{terminal} at {pin} may stop {controller}',
      text: '{pin} is the hardware chip select of {controller}. {note}',
      why: 'When its SS input is pulled low, the controller switches to peripheral mode and stops driving SCK. The pin must be an output or held high.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine(context) {
    const busy = new Set(context.buses.map((bus) => bus.controller));
    return context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      const duty = pin?.duties?.find((d) => d.duty === 'select');
      if (!pin || !duty) return [];
      const demand = PIN_ROLES[item.terminal.role];
      const controller = pin.functions?.find((name) => name.endsWith('.cs'))?.split('.')[0];
      if (!demand || !controller || !busy.has(controller)) return [];
      // Board outputs are fine; the controller does not read its own chip select.
      if ((demand.output && !demand.input) || demand.line) return [];
      return [
        {
          level: 'risk' as const,
          message: 'select',
          place: { pins: [pin.id], terminals: [item.key] },
          data: {
            terminal: { is: 'terminal' as const, key: item.key },
            pin: { is: 'pin' as const, pin: pin.id },
            controller: { is: 'controller' as const, id: controller },
            note: { is: 'words' as const, text: duty.note },
          },
          source: context.board.sheet.pins.source,
          remedies: () => moveWhere(context, item, (other) => !other.duties?.some((d) => d.duty === 'select')),
        },
      ];
    });
  },
};
