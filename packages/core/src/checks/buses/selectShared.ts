import { atOrThrow, firstOrThrow } from '../../collections/orThrow';
import type { Net } from '../../nets/nets';
import type { Check, CheckContext, Remedy } from '../engine/check';
import { moveToFree } from '../fixes/remedyParts';

/** Whether all that meets on a net are selects, of more than one part. */
export const isSharedSelect = (net: Net): boolean =>
  net.signals.length > 1 && net.terminals.every((item) => item.terminal.role === 'spi.cs');

/** Parts of one kind that pass their bits on: one after the other instead of side by side, on the one select that they have. */
function chained(context: CheckContext, net: Net): readonly Remedy[] {
  const parts = net.terminals.map((item) => item.placement);
  const { part } = firstOrThrow(net.terminals);
  const input = part.terminals.list.find((t) => t.chain === 'in')?.id;
  const output = part.terminals.list.find((t) => t.chain === 'out')?.id;
  const own = (id: string, terminal: string) => context.terminals.find((t) => t.placement.id === id && t.terminal.id === terminal)?.wire;
  const movable = parts.slice(1).every((p) => input && !p.onBoard && !own(p.id, input)?.locked);
  // A chain whose first part follows another part is reported by a different check.
  const headed = input !== undefined && own(firstOrThrow(parts).id, input)?.end.to !== 'terminal';
  if (!input || !output || !movable || !headed || parts.some((p) => p.sheet.id !== firstOrThrow(parts).sheet.id)) return [];
  return [
    {
      label: 'chain',
      data: { links: { is: 'placements', ids: parts.map((p) => p.id) } },
      grade: 'offered',
      edits: parts.slice(1).map((p, at) => ({
        kind: 'wire',
        placement: p.id,
        terminal: input,
        end: { to: 'terminal', placement: atOrThrow(parts, at).id, terminal: output },
      })),
    },
  ];
}

export const selectShared: Check = {
  code: 'select-shared',
  question: 'Does every SPI device have its own chip select?',
  messages: {
    shared: {
      title: 'Chip select shared: {pin} selects {count} devices',
      text: '{members} receive and respond together.',
      why: 'CS selects the device that a transfer is meant for. Two devices on one CS execute each other’s commands, and their MISO outputs drive against each other.',
    },
  },
  remedies: { chain: 'Daisy-chain them: {links}', move: 'Move {terminal} to {pin}' },
  examine: (context) =>
    context.nets.list
      .filter((net) => net.pins.length > 0 && isSharedSelect(net))
      .map((net) => ({
        level: 'clash',
        message: 'shared',
        place: { pins: [firstOrThrow(net.pins)], terminals: net.terminals.map((t) => t.key) },
        data: {
          pin: { is: 'pin', pin: firstOrThrow(net.pins) },
          count: { is: 'count', value: net.signals.length },
          members: { is: 'placements', ids: net.signals.map((signal) => firstOrThrow(signal.terminals).placement.id) },
        },
        source: firstOrThrow(net.terminals).part.bus.source,
        remedies: () => [
          ...chained(context, net),
          ...(net.signals.length > 2 ? [] : [...net.terminals].toReversed().flatMap((item) => moveToFree(context, item))),
        ],
      })),
};
