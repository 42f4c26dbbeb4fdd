import { has, type With } from '../../collections/has';
import { firstOrThrow } from '../../collections/orThrow';
import { chainsOf } from '../../nets/chains';
import { terminalsOf, type PlanTerminal } from '../../nets/terminals';
import type { Placement } from '../../plan/plan';
import { PIN_ROLES } from '../../sheets/roles';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';

/** The lines that all parts of a chain share with its head: clock, latch and select, not the data that is passed on. */
const sharedLines = (context: CheckContext, placement: Placement): readonly PlanTerminal[] =>
  terminalsOf(context.plan, placement, context.sheets).filter((t) =>
    PIN_ROLES[t.terminal.role]?.output === true || t.terminal.role === 'spi.sck' ? !t.terminal.chain && t.wire?.end.to === 'pin' : false,
  );

/** A terminal of a member, and the one of the head that it should be wired like. */
type Stray = readonly [PlanTerminal, With<PlanTerminal, 'wire'>];

/** The lines of a chained part that are not where those of the head are. */
function strays(context: CheckContext, head: Placement, member: Placement): readonly Stray[] {
  if (head.sheet.id !== member.sheet.id) return [];
  const own = sharedLines(context, head);
  return sharedLines(context, member).flatMap((item) => {
    const other = own.filter(has('wire')).find((t) => t.terminal.id === item.terminal.id);
    const net = (t: PlanTerminal) => context.nets.byTerminal.get(t.key);
    return other && net(item) !== net(other) ? [[item, other] as const] : [];
  });
}

function toHead(pairs: readonly Stray[]): readonly Remedy[] {
  if (pairs.some(([item]) => item.wire?.locked || item.placement.onBoard)) return [];
  return [
    {
      label: 'to-head',
      data: {
        terminals: { is: 'terminals', keys: pairs.map(([item]) => item.key) },
        head: { is: 'placement', id: firstOrThrow(pairs)[1].placement.id },
      },
      grade: 'offered',
      edits: pairs.map(([item, other]) => ({
        kind: 'wire',
        placement: item.placement.id,
        terminal: item.terminal.id,
        end: other.wire.end,
      })),
    },
  ];
}

function stray(context: CheckContext, head: Placement, member: Placement): readonly FindingDraft[] {
  const pairs = strays(context, head, member);
  if (pairs.length === 0) return [];
  return [
    {
      level: 'clash',
      message: 'apart',
      place: { placements: [member.id], terminals: pairs.map(([item]) => item.key) },
      data: {
        member: { is: 'placement', id: member.id },
        head: { is: 'placement', id: head.id },
        terminals: { is: 'terminals', keys: pairs.map(([item]) => item.key) },
      },
      source: firstOrThrow(pairs)[0].part.bus.source,
      remedies: () => toHead(pairs),
    },
  ];
}

export const chainBroken: Check = {
  code: 'chain-broken',
  question: 'Is every daisy chain fed by the board, with common clock and latch?',
  messages: {
    circle: {
      title: 'Daisy chain is a closed loop: {members}',
      text: 'No device of the chain gets its data from the board.',
      why: 'The board drives DIN of the first device; each DOUT drives the next DIN.',
    },
    apart: {
      title: '{member} is not clocked with {head}',
      text: '{terminals}: not on the same net as those of the first device.',
      why: 'All devices of a daisy chain share clock and latch; on each clock every device passes one bit on. A device on another clock or latch loses the bits that pass through it.',
    },
  },
  remedies: { 'to-head': 'Connect {terminals} with those of {head}' },
  examine: (context) =>
    chainsOf(context.plan, context.sheets).flatMap(({ members, circle }): readonly FindingDraft[] => {
      const [head, ...rest] = members;
      if (!head) return [];
      if (!circle) return rest.flatMap((member) => stray(context, head, member));
      return [
        {
          level: 'clash',
          message: 'circle',
          place: { placements: members.map((m) => m.id) },
          data: { members: { is: 'placements', ids: members.map((m) => m.id) } },
          remedies: () => [],
        },
      ];
    }),
};
