import { transistorFor } from '../../electrics/reports/transistorFor';
import { partOf } from '../../plan/edit';
import { type Driver, splitKey, type TerminalKey } from '../../plan/plan';
import type { CheckContext, Remedy } from '../engine/check';

export const TRANSISTOR_WORDS: { readonly [K in Driver['kind']]: string } = {
  npn: 'NPN transistor',
  pnp: 'PNP transistor',
  nmos: 'N-MOSFET',
  pmos: 'P-MOSFET',
};

export const TRANSISTOR_REMEDY = { transistor: 'Add a transistor ({transistor}, {ohms})' } as const;

/** A transistor for a load other than an LED. */
export function transistorRemedy(context: CheckContext, key: TerminalKey, limit: number): readonly Remedy[] {
  const { placement, terminal } = splitKey(key);
  const load = partOf(context.plan, placement, context.sheets)?.terminals.get(terminal)?.loadMilliamps;
  const driver = load === undefined || context.plan.drivers[key] ? undefined : transistorFor(context, load / 1000, limit, 'ground');
  if (!driver) return [];
  return [
    {
      label: 'transistor',
      data: { transistor: { is: 'words', text: TRANSISTOR_WORDS[driver.kind] }, ohms: { is: 'quantity', value: driver.ohms, unit: 'Ω' } },
      grade: 'offered',
      edits: [{ kind: 'driver', placement, terminal, driver }],
    },
  ];
}
