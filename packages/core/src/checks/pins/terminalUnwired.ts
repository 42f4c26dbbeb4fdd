import { firstOrThrow } from '../../collections/orThrow';
import { proposeWires } from '../../assign/proposeWires';
import { ontoSoftware } from '../../assign/softwareBus';
import { PIN_ROLES } from '../../sheets/roles';
import { openTerminals } from '../../nets/openTerminals';
import type { PlanTerminal } from '../../nets/terminals';
import type { Edit } from '../../plan/edit';
import type { Placement } from '../../plan/plan';
import { onAdc } from '../fixes/onAdc';
import { pwmBySoftware, SOFTWARE_PWM } from '../fixes/pwmBySoftware';
import { softwareRemedy } from '../fixes/remedyParts';
import { missingSupplies } from '../fixes/separateSupply';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';

function remedy(label: string, grade: Remedy['grade'], edits: readonly Edit[], words: string): Remedy {
  return { label, grade, edits, data: { count: { is: 'count', value: edits.length }, ends: { is: 'words', text: words } } };
}

/** "SDA → GP4, SCL → GP5": what a remedy would wire. */
function wording(edits: readonly Edit[]): string {
  return edits.flatMap((edit) => (edit.kind === 'wire' && edit.end.to === 'pin' ? [`${edit.terminal} → ${edit.end.pin}`] : [])).join(', ');
}

function remedies(context: CheckContext, placement: Placement, open: readonly PlanTerminal[]): readonly Remedy[] {
  const { plan, sheets } = context;
  const supply = proposeWires(context, placement, 'supply');
  const all = proposeWires(context, placement);
  const found: Remedy[] = [];
  if (all.length > supply.length) found.push(remedy('all', 'offered', all, wording(all)));
  if (supply.length > 0) found.push(remedy('supply', 'safe', supply, ''));
  const wired = new Set(all.map((edit) => (edit.kind === 'wire' ? edit.terminal : undefined)));
  const pinless = open.filter(({ terminal }) => !wired.has(terminal.id));
  found.push(...onAdc(context, pinless), ...onSoftwareBus(context, placement, pinless), ...pwmBySoftware(context, pinless));
  for (const { part, edits } of missingSupplies(plan, sheets, open))
    found.push({ label: 'separate', grade: 'offered', edits, data: { supply: { is: 'parts', ids: [part.id] } } });
  return found;
}

/** "Use a bus by software": for bus lines that no controller of the chip is left for. */
function onSoftwareBus(context: CheckContext, placement: Placement, open: readonly PlanTerminal[]): readonly Remedy[] {
  const kinds = new Set(open.flatMap(({ terminal }) => PIN_ROLES[terminal.role]?.line?.kind ?? []));
  return [...kinds].flatMap((kind): Remedy[] => {
    const found = ontoSoftware(context.plan, context.sheets, [placement], kind);
    return found ? [softwareRemedy(context, kind, found)] : [];
  });
}

function finding(context: CheckContext, open: readonly PlanTerminal[]): FindingDraft {
  const { placement } = firstOrThrow(open);
  return {
    level: 'clash',
    message: open.length === 1 ? 'one' : 'some',
    place: { placements: [placement.id], terminals: open.map((t) => t.key) },
    data: {
      placement: { is: 'placement', id: placement.id },
      count: { is: 'count', value: open.length },
      terminals: { is: 'words', text: open.map((t) => t.terminal.label).join(', ') },
    },
    source: firstOrThrow(open).part.terminals.source,
    remedies: () => remedies(context, placement, open),
  };
}

const why = 'The part sheet lists these terminals as required; without them the part does not work.';

export const terminalUnwired: Check = {
  code: 'terminal-unwired',
  question: 'Is every required terminal connected?',
  messages: {
    one: { title: '{placement}: {terminals} is not connected', text: 'The part requires this terminal.', why },
    some: { title: '{placement}: {count} connections missing', text: 'Not connected: {terminals}.', why },
  },
  remedies: {
    all: 'Connect all {count}: {ends}',
    supply: 'Connect supply and ground',
    separate: 'Add a supply: {supply}',
    'on-adc': 'Use free channels of {helper}',
    'add-adc': 'Add a converter: {adc}',
    software: 'Use a bus by software on {pins} (up to {clock})',
    'software-pwm': SOFTWARE_PWM,
  },
  examine(context) {
    const open = openTerminals(context.terminals, context.nets);
    return context.plan.placements.flatMap((placement) => {
      const mine = open.filter((t) => t.placement.id === placement.id);
      return mine.length > 0 ? [finding(context, mine)] : [];
    });
  },
};
