import type { Costs, Instance } from '@roof-chart/core/assign/model/instance';
import { integerProgram, TIERS } from './integerProgram';

/** What is used of the general solver. */
export interface Highs {
  solve(
    program: string,
    options?: { readonly [name: string]: number | string | boolean },
  ): { readonly Status: string; readonly ObjectiveValue: number };
}

const GAPS = { mip_rel_gap: 0, mip_abs_gap: 0.5 } as const;

/** The least costs of an instance by a general integer-programming solver, tier after tier.
 *  @param presolve its presolve now and then breaks a program ("claims optimality, but with infeasibilities"; "infeasible" for
 *  one with a known solution): such an instance is asked again without
 *  @throws Error when it does not prove an optimum */
export function oracle(highs: Highs, instance: Instance, presolve: 'on' | 'off' = 'on'): Costs {
  if (instance.items.length + instance.members.length === 0) return { unwired: 0, moved: 0, caution: 0, unusual: 0, waste: 0 };
  const program = integerProgram(instance);
  const found: number[] = [];
  for (const tier of TIERS) {
    const { Status, ObjectiveValue } = highs.solve(program(tier, found), { ...GAPS, presolve });
    if (Status !== 'Optimal') throw new Error(`The general solver ended with ${Status} in tier ${tier}`);
    found.push(Math.round(ObjectiveValue));
  }
  const [unwired, moved, caution, unusual, waste] = found as [number, number, number, number, number];
  return { unwired, moved, caution, unusual, waste };
}
