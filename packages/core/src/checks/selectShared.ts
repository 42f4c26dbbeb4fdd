import type { Net } from '../nets/nets';
import type { Check } from './check';
import { moveToFree } from './remedyParts';

/** Whether all that meets on a net are selects, of more than one part. */
export const isSharedSelect = (net: Net): boolean =>
  net.signals.length > 1 && net.terminals.every((item) => item.terminal.role === 'spi.cs');

export const selectShared: Check = {
  code: 'select-shared',
  question: 'Has every SPI part a select of its own?',
  messages: {
    shared: {
      title: '{pin} selects {count} parts at once',
      text: '{members} listen and answer together.',
      why: 'The select says which part the bytes are for. Two parts with one select take each other’s commands, and their data outputs drive against each other.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine: (context) =>
    context.nets.list
      .filter((net) => net.pins.length > 0 && isSharedSelect(net))
      .map((net) => ({
        level: 'clash',
        message: 'shared',
        place: { pins: [net.pins[0]!], terminals: net.terminals.map((t) => t.key) },
        data: {
          pin: { is: 'pin', pin: net.pins[0]! },
          count: { is: 'count', value: net.signals.length },
          members: { is: 'placements', ids: net.signals.map((signal) => signal.terminals[0]!.placement.id) },
        },
        source: net.terminals[0]!.part.bus.source,
        remedies: net.signals.length > 2 ? [] : [...net.terminals].toReversed().flatMap((item) => moveToFree(context, item)),
      })),
};
