import { atOrThrow, firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import { chainsOf, fromBoard, isReadChain } from '../../nets/chains';
import type { Edit } from '../../plan/edit';
import type { Placement } from '../../plan/plan';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from '../engine/check';

/** Reorders the parts of a chain in the list to match their wires, at their present positions. */
function inOrder(context: CheckContext, members: readonly Placement[]): readonly Edit[] {
  const order = context.plan.placements.map((p) => p.id);
  const places = members.map((m) => order.indexOf(m.id)).toSorted((a, b) => a - b);
  const edits: Edit[] = [];
  for (const [n, member] of members.entries()) {
    const [from, to] = [order.indexOf(member.id), atOrThrow(places, n)];
    if (from === to) continue;
    order.splice(from, 1);
    order.splice(to, 0, member.id);
    edits.push({ kind: 'move-placement', placement: member.id, at: to });
  }
  return edits;
}

export const chainOrder: Check = {
  code: 'chain-order',
  question: 'Does the order of each daisy chain match the list of parts?',
  messages: {
    other: {
      title: 'Daisy chain order differs from the list: {first} is first',
      text: 'Wiring: {wired}. List: {listed}. The bits that are sent first end up in {last}.',
      why: 'The first bits that are shifted in travel to the last device. Code that counts the other way shows each pattern on the wrong device.',
    },
    read: {
      title: 'Daisy chain order differs from the list: {first} is read first',
      text: 'Wiring from the board: {wired}. List: {listed}. The bits that are read first come from {first}.',
      why: 'The device at the data-in pin of the board shifts out first; the others follow through it. Code that counts the other way takes the inputs of one device for those of another.',
    },
  },
  remedies: { reorder: 'Sort the list by wiring' },
  examine: (context) =>
    chainsOf(context.plan, context.sheets).flatMap(({ members: wired, circle }): readonly FindingDraft[] => {
      const members = fromBoard({ members: wired }, context.sheets);
      const part = partSheetOrThrow(context.sheets, firstOrThrow(wired).sheet).sheet;
      const place = (p: Placement) => context.plan.placements.indexOf(p);
      const listed = members.toSorted((a, b) => place(a) - place(b));
      if (circle || members.length < 2 || listed.every((p, at) => p === members[at])) return [];
      return [
        {
          level: 'hint',
          message: isReadChain(part) ? 'read' : 'other',
          place: { placements: members.map((m) => m.id) },
          data: {
            first: { is: 'placement', id: firstOrThrow(members).id },
            last: { is: 'placement', id: lastOrThrow(members).id },
            wired: { is: 'placements', ids: members.map((m) => m.id) },
            listed: { is: 'placements', ids: listed.map((m) => m.id) },
          },
          source: part.bus.source,
          remedies: () => [{ label: 'reorder', data: {}, grade: 'offered', edits: inOrder(context, members) }],
        },
      ];
    }),
};
