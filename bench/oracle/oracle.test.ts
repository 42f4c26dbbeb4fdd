import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { solve } from '@roof-chart/core/assign/solve/solve';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import loadHighs from 'highs';
import { join } from 'node:path';
import { checkChoice } from './checkChoice';
import { madeUpInstance, realInstance } from './random';
import { type Highs, oracle } from './oracle';

const sheets = indexSheets(readCatalogue(join(__dirname, '../../packages/catalogue')));
// The general solver grows its memory with every program; a new one now and then keeps it small.
let highs: Highs;
let used = 0;
async function solver(): Promise<Highs> {
  if (used % 25 === 0) highs = (await loadHighs()) as Highs;
  used += 1;
  return highs;
}

jest.setTimeout(180_000);

const SEEDS = Array.from({ length: 30 }, (_, n) => n + 1);

test.each([
  ['real boards and parts', (seed: number) => realInstance(seed, sheets, 8)],
  ['made-up, crowded', madeUpInstance],
])('the optimum is that of an independent solver: %s', async (_, make) => {
  let [open, moved] = [0, 0];
  for (const seed of SEEDS) {
    const instance = make(seed);
    const { choice, costs, proved } = solve(instance);
    expect({ seed, costs: checkChoice(instance, choice) }).toEqual({ seed, costs });
    expect({ seed, proved, costs }).toEqual({ seed, proved: true, costs: oracle(await solver(), instance, 'off') });
    if (costs.unwired > 0) open += 1;
    if (costs.moved > 0) moved += 1;
  }
  // Instances that are all easy, or all impossible, would prove little.
  expect(open).toBeGreaterThan(3);
  expect(open).toBeLessThan(SEEDS.length);
  expect(moved).toBeGreaterThan(3);
});

test('a choice that breaks a rule is told from one that does not', () => {
  const instance = realInstance(3, sheets, 8);
  const { choice } = solve(instance);
  const [first, second] = Object.keys(choice.items);
  const spoilt = { ...choice, items: { ...choice.items, [first!]: choice.items[second!] ?? 'nowhere' } };
  expect(() => checkChoice(instance, spoilt)).toThrow(/carries|no candidate/);
});
