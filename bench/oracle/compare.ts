import loadHighs from 'highs';
import { solve } from '@roof-chart/core/allocate/solve';
import type { Instance } from '@roof-chart/core/allocate/instance';
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

function compared(name: string, instance: Instance, highs: Highs): Case {
  const [ours, solved] = elapsed(() => solve(instance));
  const [theirs, costs] = elapsed(() => oracle(highs, instance));
  const said = checkChoice(instance, solved.choice);
  if (!solved.proved || JSON.stringify(said) !== JSON.stringify(costs) || JSON.stringify(solved.costs) !== JSON.stringify(costs))
    throw new Error(`${name}: ${JSON.stringify(said)} here (proved: ${solved.proved}), ${JSON.stringify(costs)} by the general solver`);
  return { name, ours, theirs, open: costs.unwired > 0 };
}

/** Holds the solver against a general one on seeded instances: equal optimum every time, and how much faster.
 *  @throws Error at the first difference, naming the instance */
export async function compareWithOracle(count: number, sheets: Sheets): Promise<string> {
  const cases: Case[] = [];
  let highs: Highs | undefined;
  for (let seed = 1; seed <= count / 2; seed += 1) {
    // The general solver's memory grows with every program.
    if (seed % 10 === 1) highs = (await loadHighs()) as Highs;
    cases.push(compared(`real ${seed}`, realInstance(seed, sheets, 8), highs!), compared(`made-up ${seed}`, madeUpInstance(seed), highs!));
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
