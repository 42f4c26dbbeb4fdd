import { orThrow } from '../../collections/orThrow';
import type { PlanTerminal } from '../../nets/terminals';
import { splitKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft } from '../engine/check';

/** A supply terminal whose part limits no current, such as the backlight of a display without a resistor on its module. Signals are left out:
 *  there a resistor only improves the edges. */
const isUnlimited = ({ plan }: CheckContext, { key, terminal, wire, placement }: PlanTerminal): boolean =>
  terminal.seriesOhms !== undefined &&
  terminal.role === 'supply.vcc' &&
  wire !== undefined &&
  !placement.onBoard &&
  plan.series[key] === undefined;

function draft(item: PlanTerminal): FindingDraft {
  const { key, part, placement, terminal } = item;
  const ohms = orThrow(terminal.seriesOhms, 'resistance');
  const data = { terminal: { is: 'terminal', key }, ohms: { is: 'quantity', value: ohms, unit: 'Ω' } } as const;
  return {
    level: 'risk',
    message: 'supply',
    place: { terminals: [key], placements: [placement.id], view: 'resistors' },
    data,
    source: part.terminals.source,
    remedies: () => [{ label: 'add', data, grade: 'safe', edits: [{ kind: 'series', ...splitKey(key), ohms }] }],
  };
}

export const seriesMissing: Check = {
  code: 'series-missing',
  question: 'Does every supply wire that needs a series resistor have it?',
  missing: 'resistor',
  messages: {
    supply: {
      title: '{terminal}: no series resistor',
      text: 'Unless the module carries a resistor of its own, nothing limits the current. {ohms} is safe with and without it.',
      why: 'I = (V − VF) / R. A backlight is one or more LEDs: without a resistor on the module or in its wire only the supply limits the current.',
    },
  },
  remedies: { add: 'Add {ohms} at {terminal}' },
  examine: (context) => context.terminals.filter((item) => isUnlimited(context, item)).map(draft),
};
