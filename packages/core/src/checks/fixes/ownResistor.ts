import { atOrThrow } from '../../collections/orThrow';
import { ledReports } from '../../electrics/reports/ledReport';
import { outputEnd } from '../../electrics/reports/ledStrings';
import { terminalsOf, type PlanTerminal } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { splitKey, type TerminalKey } from '../../plan/plan';
import type { CheckContext, Remedy } from '../engine/check';

export const OWN_RESISTOR = { own: 'Connect {terminals} to {end}, each LED with its own resistor' } as const;

/** Wires LEDs to the output that the current of the first of them comes from, and gives each its own resistor.
 *  @param grounds whether their cathodes, which end at other LEDs so far, go to ground */
export function ownResistors(
  { plan, sheets }: CheckContext,
  first: PlanTerminal,
  others: readonly PlanTerminal[],
  grounds = false,
): readonly Remedy[] {
  const end = outputEnd(plan, sheets, first);
  const all = [first, ...others];
  if (end?.to !== 'pin' && end?.to !== 'terminal') return [];
  if (others.some(({ wire, placement }) => wire?.locked || placement.onBoard)) return [];
  const wired: Edit[] = others.map(({ placement, terminal }) => ({ kind: 'wire', placement: placement.id, terminal: terminal.id, end }));
  const grounded: Edit[] = grounds
    ? all.flatMap(({ placement }) =>
        terminalsOf(plan, placement, sheets).flatMap((item): Edit[] =>
          item.terminal.role === 'ground' && item.wire?.end.to !== 'ground'
            ? [{ kind: 'wire', placement: placement.id, terminal: item.terminal.id, end: { to: 'ground' } }]
            : [],
        ),
      )
    : [];
  const bare: Edit[] = all.flatMap(({ key }) => (plan.series[key] === undefined ? [] : [{ kind: 'series', ...splitKey(key), ohms: null }]));
  const moved = applyEdits(plan, [...wired, ...grounded, ...bare], sheets);
  if (!moved.ok) return [];
  const fits = new Map<TerminalKey, number | undefined>(ledReports(moved.plan, sheets).map((led) => [led.key, led.fitOhms]));
  const values = all.map(({ key }) => fits.get(key));
  if (values.includes(undefined)) return [];
  return [
    {
      label: 'own',
      data: {
        terminals: { is: 'terminals', keys: others.map(({ key }) => key) },
        end: end.to === 'pin' ? { is: 'pin', pin: end.pin } : { is: 'terminal', key: `${end.placement}:${end.terminal}` },
      },
      grade: 'offered',
      edits: [
        ...wired,
        ...grounded,
        ...all.map(({ key }, at): Edit => ({ kind: 'series', ...splitKey(key), ohms: atOrThrow(values, at) })),
      ],
    },
  ];
}
