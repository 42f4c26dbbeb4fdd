import { type Plan, PLAN_DEFAULTS } from './plan';

/** A stored plan in today's shape: fields that came later than the plan get their empty value. */
export function upgradePlan(stored: Plan | Omit<Plan, keyof typeof PLAN_DEFAULTS>): Plan {
  return { ...PLAN_DEFAULTS, ...stored };
}
