import { type Component, planComponents } from '../../electrics/reports/components';
import { logicSupply } from '../../nets/feedRail';
import type { Edit } from '../../plan/edit';
import { splitKey, terminalKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';

/** How many ends a component must have. */
const ends = ({ kind }: Component): number => (kind === 'trimmer' || kind === 'transistor' ? 3 : 2);

/** Takes a component out of the plan; the resistor at a base goes with its transistor. */
function removing({ role, key }: Component): Edit | undefined {
  if (key === undefined) return undefined;
  const at = splitKey(key);
  if (role === 'series') return { kind: 'series', ...at, ohms: null };
  if (role === 'pull') return { kind: 'pull', ...at, pull: null };
  return role === 'base' ? { kind: 'driver', ...at, driver: null } : undefined;
}

function remedies({ plan }: CheckContext, component: Component): readonly Remedy[] {
  const edit = removing(component);
  const placement = component.key === undefined ? undefined : splitKey(component.key).placement;
  if (!edit || plan.placements.find((p) => p.id === placement)?.onBoard) return [];
  return [{ label: 'remove', data: { name: { is: 'words', text: component.name } }, grade: 'offered', edits: [edit] }];
}

/** Whether a divider lies between one net and the same again: its part is supplied from ground. */
function isShorted({ plan, nets, terminals }: CheckContext, { key }: Component): boolean {
  const end = key === undefined ? undefined : plan.wires[key]?.end;
  if (end?.to !== 'trimmer' && end?.to !== 'divider') return false;
  const item = terminals.find((one) => one.key === key);
  const supply = item && logicSupply(item.part);
  return item && supply ? nets.byTerminal.get(terminalKey(item.placement.id, supply.id))?.ground === true : false;
}

export const componentUnconnected: Check = {
  code: 'component-unconnected',
  question: 'Do both ends of every component lead somewhere, and not to the same place?',
  messages: {
    open: {
      title: '{name} at {terminal}: one end unconnected',
      text: 'Nothing is wired where the other end would go.',
      why: 'A resistor in a wire needs the wire; a pull-up needs a supply.',
    },
    shorted: {
      title: '{name} at {terminal}: both outer ends at GND',
      text: 'It divides no voltage: {terminal} stays at 0 V.',
      why: 'A trimmer or divider lies between the supply of its part and ground.',
    },
  },
  remedies: { remove: 'Remove {name}' },
  planWide: true,
  examine: (context) =>
    planComponents(context.plan, context.sheets).flatMap((component): FindingDraft[] => {
      const { key, name } = component;
      const message = isShorted(context, component) ? 'shorted' : component.ends.length < ends(component) ? 'open' : undefined;
      if (message === undefined || key === undefined) return [];
      return [
        {
          level: message === 'shorted' ? 'clash' : 'risk',
          message,
          place: { placements: [splitKey(key).placement], terminals: [key] },
          data: { name: { is: 'words', text: name }, terminal: { is: 'terminal', key } },
          remedies: () => (message === 'open' ? remedies(context, component) : []),
        },
      ];
    }),
};
