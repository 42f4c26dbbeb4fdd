import { railsFor, tieEnd } from '../../assign/fit/railFit';
import type { PlanTerminal } from '../../nets/terminals';
import { splitKey, terminalKey, type WireEnd } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { rewire } from '../fixes/remedyParts';

/** Possible ties of an unconnected terminal: ground, a supply rail, or each tie that its sheet allows. Which level is active only the
 *  user knows. */
function endsFor(context: CheckContext, item: PlanTerminal): readonly WireEnd[] {
  const { part, terminal } = item;
  if (terminal.role === 'ground') return [{ to: 'ground' }];
  if (terminal.role === 'supply.vcc')
    return railsFor(context.board, part, terminal)
      .slice(0, 1)
      .map(({ id }) => ({ to: 'rail', rail: id }));
  return (terminal.ties ?? []).flatMap((tie) => tieEnd(context, item, tie) ?? []);
}

/** A terminal to a rail, with the resistor that its sheet requires in that wire. */
function toRail({ plan }: CheckContext, item: PlanTerminal, end: WireEnd & { readonly to: 'rail' }): Remedy {
  const { terminal, key } = item;
  const rail = { is: 'rail', rail: end.rail } as const;
  const ohms = terminal.seriesOhms;
  if (ohms === undefined || plan.series[key] !== undefined) return rewire(item, end, { label: 'to-rail', data: { rail } });
  const wired = rewire(item, end, { label: 'to-rail-through', data: { rail, ohms: { is: 'quantity', value: ohms, unit: 'Ω' } } });
  return { ...wired, edits: [...wired.edits, { kind: 'series', ...splitKey(key), ohms }] };
}

/** Offered, not safe: a backlight may be left dark on purpose. */
const remedies = (context: CheckContext, item: PlanTerminal): readonly Remedy[] =>
  item.wire?.locked || item.placement.onBoard
    ? []
    : endsFor(context, item).map((end) => (end.to === 'rail' ? toRail(context, item, end) : rewire(item, end, { label: 'to-ground' })));

function finding(context: CheckContext, item: PlanTerminal): readonly FindingDraft[] {
  const { ifOpen } = item.terminal;
  if (!ifOpen || context.nets.byTerminal.has(item.key)) return [];
  const other = ifOpen.with === undefined ? undefined : terminalKey(item.placement.id, ifOpen.with);
  const half = other !== undefined && context.nets.byTerminal.has(other);
  return [
    {
      level: half ? 'risk' : 'hint',
      message: half ? 'half' : 'open',
      place: { terminals: [item.key], placements: [item.placement.id] },
      data: {
        terminal: { is: 'terminal', key: item.key },
        note: { is: 'words', text: ifOpen.note },
        hint: { is: 'words', text: item.terminal.note ? ` ${item.terminal.note}` : '' },
        ...(half ? { other: { is: 'terminal', key: other } } : {}),
      },
      source: item.part.terminals.source,
      remedies: () => remedies(context, item),
    },
  ];
}

export const terminalNeedsTie: Check = {
  code: 'terminal-needs-tie',
  question: 'Is no terminal open that needs a defined level?',
  messages: {
    open: {
      title: '{terminal} is not connected',
      text: '{note}.{hint}',
      why: 'The part works without this wire, except for what its sheet states.',
    },
    half: {
      title: '{terminal} is not connected while {other} is',
      text: '{note}: the circuit needs both terminals.{hint}',
      why: 'Both terminals belong to one circuit on the part, such as a backlight. With one of them open no current flows.',
    },
  },
  remedies: {
    'to-rail': 'Connect {terminal} to {rail}',
    'to-rail-through': 'Connect {terminal} to {rail} through {ohms}',
    'to-ground': 'Connect {terminal} to GND',
  },
  examine: (context) => context.terminals.flatMap((item) => finding(context, item)),
};
