import type { Costs, LinePin } from './instance';

/** The tiers as one whole number, exact in a double (below 9 · 10¹⁵): each tier is worth more than all below it can add up to. A board
 *  has at most 400 pins, and caution and waste are paid for pins: 400 times 120 stays below 5 · 10⁴, 400 below 500. What is unusual is
 *  counted for bus lines and selects alone, 120 in all. Each of the `demands` terminals can be moved or removed, which counts twice:
 *  below 2000. */
export const TIER = { unwired: 6.25e12, moved: 3.125e9, caution: 6.25e6, unusual: 5e4, waste: 1 } as const;

/** Largest sizes for which the tiers cannot run into each other. */
export const INSTANCE_LIMITS = { demands: 700, unusual: 120, waste: 120 } as const;

/** The tiers from the one that counts most. */
export const TIERS = ['unwired', 'moved', 'caution', 'unusual', 'waste'] as const;

export const NO_COSTS: Costs = { unwired: 0, moved: 0, caution: 0, unusual: 0, waste: 0 };

/** The costs of all tiers as one weighted number. */
export const combined = (costs: Partial<Costs>): number =>
  (costs.unwired ?? 0) * TIER.unwired +
  (costs.moved ?? 0) * TIER.moved +
  (costs.caution ?? 0) * TIER.caution +
  (costs.unusual ?? 0) * TIER.unusual +
  (costs.waste ?? 0) * TIER.waste;

/** The tiers of a combined cost.
 *  @example split(combined({ unwired: 1, caution: 2, waste: 7 })) // { unwired: 1, moved: 0, caution: 2, unusual: 0, waste: 7 } */
export function split(total: number): Costs {
  const costs: { -readonly [T in keyof Costs]: number } = { ...NO_COSTS };
  let left = total;
  for (const tier of TIERS) {
    costs[tier] = Math.floor(left / TIER[tier]);
    left -= costs[tier] * TIER[tier];
  }
  return costs;
}

/** What a pin costs its user. */
export const pinCosts = ({ moved, caution, unusual, waste }: LinePin & { readonly moved?: number }): Partial<Costs> => ({
  moved: moved ?? 0,
  caution,
  unusual,
  waste,
});
