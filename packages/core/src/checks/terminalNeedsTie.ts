import { railsFor, tieRail } from '../allocate/railFit';
import type { PlanTerminal } from '../nets/terminals';
import { terminalKey, type WireEnd } from '../plan/plan';
import type { Check, CheckContext, FindingDraft, Remedy } from './check';
import { rewire } from './remedyParts';

/** Where a terminal that was left open belongs: ground, a rail for a supply, or the tie that its sheet allows. */
function endFor({ plan, board }: CheckContext, { part, placement, terminal }: PlanTerminal): WireEnd | undefined {
  const tie = terminal.role === 'ground' ? 'ground' : (terminal.ties?.[0] ?? 'supply');
  if (tie === 'ground') return { to: 'ground' };
  const rail = terminal.role === 'supply.vcc' ? railsFor(board, part, terminal)[0] : tieRail(plan, board, placement, part);
  return rail && { to: 'rail', rail: rail.id };
}

function remedies(context: CheckContext, item: PlanTerminal): readonly Remedy[] {
  const end = endFor(context, item);
  if (!end || item.wire?.locked || item.placement.onBoard) return [];
  return end.to === 'rail'
    ? [rewire(item, end, 'to-rail', { rail: { is: 'rail', rail: end.rail } }, 'safe')]
    : [rewire(item, end, 'to-ground', {}, 'safe')];
}

function finding(context: CheckContext, item: PlanTerminal): readonly FindingDraft[] {
  const { ifOpen } = item.terminal;
  if (!ifOpen || context.nets.byTerminal.has(item.key)) return [];
  const half = ifOpen.with !== undefined && context.nets.byTerminal.has(terminalKey(item.placement.id, ifOpen.with));
  return [
    {
      level: half ? 'risk' : 'hint',
      message: half ? 'half' : 'open',
      place: { terminals: [item.key], placements: [item.placement.id] },
      data: {
        terminal: { is: 'terminal', key: item.key },
        note: { is: 'words', text: ifOpen.note },
        ...(half ? { other: { is: 'terminal', key: terminalKey(item.placement.id, ifOpen.with!) } } : {}),
      },
      source: item.part.terminals.source,
      remedies: () => remedies(context, item),
    },
  ];
}

export const terminalNeedsTie: Check = {
  code: 'terminal-needs-tie',
  question: 'Is no terminal left open that does something only when it is wired?',
  messages: {
    open: {
      title: '{terminal} is open',
      text: '{note}.',
      why: 'The part works without this wire, but for what the sheet says.',
    },
    half: {
      title: '{terminal} is open while {other} is wired',
      text: '{note}: a circuit needs both ends.',
      why: 'The two terminals are the ends of one circuit on the part, such as a backlight. With one of them open no current flows.',
    },
  },
  remedies: { 'to-rail': 'Wire {terminal} to {rail}', 'to-ground': 'Wire {terminal} to GND' },
  examine: (context) => context.terminals.flatMap((item) => finding(context, item)),
};
