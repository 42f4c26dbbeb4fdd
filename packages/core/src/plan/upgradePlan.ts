import type { Plan } from './plan';

/** A stored plan in today's shape: fields that came later than the plan get their empty value. */
export function upgradePlan(
  stored: Plan | Omit<Plan, 'accepted' | 'benchNotes' | 'wishes' | 'together' | 'busSettings' | 'rates' | 'radio'>,
): Plan {
  return { accepted: {}, benchNotes: {}, wishes: {}, together: {}, busSettings: {}, rates: {}, radio: true, ...stored };
}
