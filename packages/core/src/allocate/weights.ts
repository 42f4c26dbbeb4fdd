import type { Costs } from './instance';

/** The tiers as one whole number, exact in a double (below 9 · 10¹⁵): each tier is worth more than all below it can add up to. A board
 *  has at most 400 pins, and caution and waste are paid for pins: 400 times 240 stays below 10⁵, 400 below 10³. Each of the `demands`
 *  terminals can be moved or removed, which counts twice: below 10⁴. */
export const TIER = { unwired: 1e12, moved: 1e8, caution: 1e5, waste: 1 } as const;

/** Largest sizes for which the tiers cannot run into each other. */
export const INSTANCE_LIMITS = { demands: 2400, waste: 240 } as const;

/** The costs of all tiers as one weighted number. */
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
