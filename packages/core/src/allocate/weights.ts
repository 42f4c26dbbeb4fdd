import type { Costs } from './instance';

/** The tiers as one whole number, exact in a double: each tier is worth more than all below it can add up to.
 *  400 rows with waste of at most 400 each stay below 10⁶ · 0.2; cautions and moves stay below 1000 each. */
export const TIER = { unwired: 1e12, moved: 1e9, caution: 1e6, waste: 1 } as const;

/** Largest sizes for which the tiers cannot run into each other. */
export const INSTANCE_LIMITS = { rows: 2400, waste: 400, perTier: 999 } as const;

export const combined = (costs: Partial<Costs>): number =>
  (costs.unwired ?? 0) * TIER.unwired +
  (costs.moved ?? 0) * TIER.moved +
  (costs.caution ?? 0) * TIER.caution +
  (costs.waste ?? 0) * TIER.waste;

/** The tiers of a combined cost.
 *  @example split(combined({ unwired: 1, moved: 0, caution: 2, waste: 7 })) // { unwired: 1, moved: 0, caution: 2, waste: 7 } */
export function split(total: number): Costs {
  const unwired = Math.floor(total / TIER.unwired);
  const below = total - unwired * TIER.unwired;
  const moved = Math.floor(below / TIER.moved);
  const rest = below - moved * TIER.moved;
  return { unwired, moved, caution: Math.floor(rest / TIER.caution), waste: rest % TIER.caution };
}
