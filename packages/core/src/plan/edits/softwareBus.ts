import type { SoftwareBusId } from '../../sheets/softwareBuses';
import type { Edit, EditRule } from '../edit';
import { type Plan, splitKey, type Wish } from '../plan';

/** A plan without a bus that the program makes, its settings, and the preferences for it. */
export function withoutSoftwareBus(plan: Plan, bus: SoftwareBusId): Plan {
  const { [bus]: _settings, ...busSettings } = plan.busSettings;
  const wishes = Object.entries(plan.wishes).flatMap(([key, wish]): (readonly [string, Wish])[] => {
    if (wish.controller !== bus) return [[key, wish]];
    const { controller: _bus, ...rest } = wish;
    return Object.keys(rest).length > 0 ? [[key, rest]] : [];
  });
  return { ...plan, softwareBuses: plan.softwareBuses.filter((id) => id !== bus), busSettings, wishes: Object.fromEntries(wishes) };
}

/** Takes a bus that the program makes into the plan, or out of it with its settings and the preferences for it. On a board whose sheet
 *  states no clock for it no part can be on it. */
export const softwareBus: EditRule<'software-bus'> = {
  apply(plan, { bus, on }) {
    const before = plan.softwareBuses;
    if (before.includes(bus) === on) return { ok: true, plan, inverse: [] };
    if (on)
      return {
        ok: true,
        plan: { ...plan, softwareBuses: [...before, bus].toSorted() },
        inverse: [{ kind: 'software-bus', bus, on: false }],
      };
    const settings = plan.busSettings[bus];
    const wished = Object.entries(plan.wishes).filter(([, wish]) => wish.controller === bus);
    return {
      ok: true,
      plan: withoutSoftwareBus(plan, bus),
      inverse: [
        { kind: 'software-bus', bus, on: true },
        ...(settings ? [{ kind: 'bus-settings', segment: bus, settings } satisfies Edit] : []),
        ...wished.map(([key, wish]): Edit => ({ kind: 'wish', ...splitKey(key), wish })),
      ],
    };
  },
};
