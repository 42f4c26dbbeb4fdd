import type { Plan } from './plan';

/** A stored plan in today's shape: fields that came later than the plan get their empty value. */
export function upgradePlan(
  stored: Plan | Omit<Plan, 'accepted' | 'benchNotes' | 'wishes' | 'together' | 'busSettings' | 'pulls' | 'drawer' | 'rates' | 'radio'>,
): Plan {
  return {
    accepted: {},
    benchNotes: {},
    wishes: {},
    together: {},
    busSettings: {},
    pulls: {},
    drawer: { series: 'E12' },
    rates: {},
    radio: true,
    ...stored,
  };
}
