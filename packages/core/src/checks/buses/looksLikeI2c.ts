import { firstOrThrow } from '../../collections/orThrow';
import { freePins } from '../../assign/fit/freePins';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { terminalKey } from '../../plan/plan';
import { findNets, type Net } from '../../nets/nets';
import { otherEnd } from '../../nets/passThrough';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, Remedy } from '../engine/check';

/** Whether terminals of a private two-wire part meet I2C lines on this net, and nothing else does. */
export const isTakenForI2c = (net: Net): boolean =>
  net.terminals.some(isPrivate) &&
  net.terminals.some((item) => item.terminal.role.startsWith('i2c.')) &&
  net.terminals.every((item) => isPrivate(item) || item.terminal.role.startsWith('i2c.'));

/** The ends of a level shifter's channels take any line. */
const isPrivate = (item: PlanTerminal): boolean =>
  item.part.bus.kind === 'private' && !item.terminal.role.startsWith('i2c.') && otherEnd(item.part, item.terminal.id) === undefined;

/** All of the part's wires that lie on the bus, each to a free pin of its own. */
function apart(context: CheckContext, items: readonly PlanTerminal[]): readonly Remedy[] {
  if (items.some((item) => item.wire?.locked || item.placement.onBoard)) return [];
  // What is wired to the part itself would come along.
  const leads = new Set(items.map((item) => item.key));
  if (Object.values(context.plan.wires).some(({ end }) => end.to === 'terminal' && leads.has(terminalKey(end.placement, end.terminal))))
    return [];
  const edits: Edit[] = [];
  const pins: string[] = [];
  let plan = context.plan;
  for (const item of items) {
    const pin = freePins(context.board, findNets(plan, context.sheets), item)[0];
    if (!pin) return [];
    const edit: Edit = { kind: 'wire', placement: item.placement.id, terminal: item.terminal.id, end: { to: 'pin', pin } };
    const result = applyEdits(plan, [edit], context.sheets);
    if (!result.ok) return [];
    plan = result.plan;
    edits.push(edit);
    pins.push(pin);
  }
  return [
    {
      label: 'apart',
      data: { placement: { is: 'placement', id: firstOrThrow(items).placement.id }, pins: { is: 'pins', pins } },
      grade: 'offered',
      edits,
    },
  ];
}

export const looksLikeI2c: Check = {
  code: 'looks-like-i2c',
  question: 'Is every part on an I2C bus an I2C device?',
  planWide: true,
  messages: {
    taken: {
      title: '{placement} is not an I2C device',
      text: '{terminals} are on the I2C bus, but the part uses another protocol: {protocol}',
      why: 'The part has clock and data lines but no I2C address, and it interprets START and STOP of other transfers as its own. It needs dedicated pins.',
    },
  },
  remedies: { apart: 'Move {placement} to dedicated pins: {pins}' },
  examine(context) {
    const met = context.nets.list.filter(isTakenForI2c).flatMap((net) => net.terminals.filter(isPrivate));
    return context.plan.placements.flatMap((placement) => {
      const items = met.filter((item) => item.placement.id === placement.id);
      if (items.length === 0) return [];
      return [
        {
          level: 'clash' as const,
          message: 'taken',
          place: { placements: [placement.id], terminals: items.map((item) => item.key) },
          data: {
            placement: { is: 'placement' as const, id: placement.id },
            terminals: { is: 'terminals' as const, keys: items.map((item) => item.key) },
            protocol: { is: 'words' as const, text: firstOrThrow(items).part.bus.protocol ?? '' },
          },
          source: firstOrThrow(items).part.bus.source,
          remedies: () => apart(context, items),
        },
      ];
    });
  },
};
