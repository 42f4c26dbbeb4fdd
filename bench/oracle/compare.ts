import loadHighs from 'highs';
import { solve } from '@roof-chart/core/assign/solve/solve';
import type { Costs, Instance } from '@roof-chart/core/assign/model/instance';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { checkChoice } from './checkChoice';
import { type Highs, oracle } from './oracle';
import { madeUpInstance, realInstance } from './random';

interface Case {
  readonly name: string;
  readonly ours: number;
  readonly theirs: number;
  readonly open: boolean;
}

const quantile = (sorted: readonly number[], q: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))]!;

const elapsed = <T>(work: () => T): readonly [number, T] => {
  const from = performance.now();
  const value = work();
  return [performance.now() - from, value];
};

/** The general solver, made anew now and then and after a failure: its memory grows with every program. */
class General {
  #highs: Highs | undefined;
  #used = 0;

  async solve(instance: Instance, presolve: 'on' | 'off' = 'on'): Promise<readonly [number, Costs]> {
    for (let attempt = 1; ; attempt += 1) {
      if (!this.#highs || this.#used % 10 === 0) this.#highs = (await loadHighs()) as Highs;
      this.#used += 1;
      try {
        return elapsed(() => oracle(this.#highs!, instance, attempt === 1 ? presolve : 'off'));
      } catch (error) {
        this.#highs = undefined;
        if (attempt === 3) throw error;
      }
    }
  }
}

async function compared(name: string, instance: Instance, general: General): Promise<Case> {
  const [ours, solved] = elapsed(() => solve(instance));
  const answer = await general.solve(instance).catch((error: unknown) => {
    throw new Error(`${name}: ${String(error)}`);
  });
  const said = checkChoice(instance, solved.choice);
  // Before a difference is called one, the general solver is asked again without its presolve.
  const [theirs, costs] = JSON.stringify(answer[1]) === JSON.stringify(said) ? answer : await general.solve(instance, 'off');
  if (!solved.proved || JSON.stringify(said) !== JSON.stringify(costs) || JSON.stringify(solved.costs) !== JSON.stringify(costs))
    throw new Error(`${name}: ${JSON.stringify(said)} here (proved: ${solved.proved}), ${JSON.stringify(costs)} by the general solver`);
  return { name, ...(await closer(instance, general, ours, theirs)), open: costs.unwired > 0 };
}

/** Where one run each is a close race, both run three times more and the least time of each counts: a pause of the machine
 *  is neither's. */
async function closer(
  instance: Instance,
  general: General,
  ours: number,
  theirs: number,
): Promise<{ readonly ours: number; readonly theirs: number }> {
  if (theirs > 4 * ours) return { ours, theirs };
  let [least, other] = [ours, theirs];
  for (let run = 0; run < 3; run += 1) {
    least = Math.min(least, elapsed(() => solve(instance))[0]);
    other = Math.min(other, (await general.solve(instance))[0]);
  }
  return { ours: least, theirs: other };
}

/** Holds the solver against a general one on seeded instances: equal optimum every time, and how much faster.
 *  @throws Error at the first difference, naming the instance */
export async function compareWithOracle(count: number, sheets: Sheets): Promise<string> {
  const cases: Case[] = [];
  const general = new General();
  for (let seed = 1; cases.length < count; seed += 1) {
    for (const [name, instance] of [
      [`real ${seed}`, realInstance(seed, sheets, 8)],
      [`made-up ${seed}`, madeUpInstance(seed)],
    ] as const)
      // An empty problem would only measure the clock.
      if (instance.items.length + instance.members.length > 0) cases.push(await compared(name, instance, general));
  }
  const ratios = cases.map((c) => c.theirs / c.ours).sort((a, b) => a - b);
  const worst = cases.reduce((a, b) => (b.theirs / b.ours < a.theirs / a.ours ? b : a));
  const slowest = cases.reduce((a, b) => (b.ours > a.ours ? b : a));
  return [
    `Allocation against a general integer-programming solver (four tiers, one after another): ${cases.length} instances, ${cases.filter((c) => c.open).length} of them impossible in full; all optima equal.`,
    `Times faster: median ${quantile(ratios, 0.5).toFixed(0)}, least ${ratios[0]!.toFixed(1)} (${worst.name}: ${worst.ours.toFixed(1)} ms against ${worst.theirs.toFixed(1)} ms).`,
    `Slowest of ours: ${slowest.name}, ${slowest.ours.toFixed(0)} ms (${slowest.theirs.toFixed(0)} ms by the general one).`,
  ].join('\n');
}
