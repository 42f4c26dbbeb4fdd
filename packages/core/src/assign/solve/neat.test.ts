import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { checkChoice } from '../../../../../bench/oracle/checkChoice';
import { madeUpInstance, realInstance } from '../../../../../bench/oracle/random';
import { compactly } from './compactness';
import { assignPins } from '../assignPins';
import { solve } from './solve';

const sheets = shippedSheets();
const board = sheets.boards.get('rp2040-stick-40')!;

test('it costs the same to the last tier and breaks no rule, on real and on made-up instances', () => {
  fc.assert(
    fc.property(fc.nat(), fc.boolean(), (seed, real) => {
      const instance = real ? realInstance(seed, sheets, 8) : madeUpInstance(seed);
      const { choice, costs } = solve(instance, { nodes: 500 });
      expect(checkChoice(instance, compactly(instance, choice, board))).toEqual(costs);
    }),
    { numRuns: runs(120) },
  );
});

test('the lines of a parallel display lie side by side where all pins are alike', () => {
  const plan = edited(stick(), sheets, add('lcd', 'lcd-2004-parallel'));
  const { plan: settled } = assignPins(plan, sheets)!;
  const lines = sheets.parts.get('lcd-2004-parallel')!.sheet.terminals.list.filter((t) => settled.wires[`lcd:${t.id}`]?.end.to === 'pin');
  const spots = lines.map((t) => board.pins.get((settled.wires[`lcd:${t.id}`]!.end as { pin: string }).pin)!);
  const steps = spots
    .slice(1)
    .map((pin, n) => (pin.header === spots[n]!.header ? Math.abs(pin.position! - spots[n]!.position!) : Infinity));
  // A ground position may lie between two neighbours, and the pins that are kept for the first bus of a kind.
  const kept = board.sheet
    .usual!.list.filter(({ controller }) => ['i2c0', 'spi0', 'uart0'].includes(controller))
    .flatMap(({ pins }) => Object.values(pins));
  const between = spots.slice(1).map((pin, n) => {
    const [from, to] = [pin.position!, spots[n]!.position!].toSorted((a, b) => a - b) as [number, number];
    const own = board.sheet.pins.list.filter((p) => p.header === pin.header && p.position! > from && p.position! < to);
    return own.filter((p) => p.kind === 'io' && !kept.includes(p.id)).length;
  });
  expect([steps.filter((step) => step > 4), between.filter((count) => count > 0)]).toEqual([[], []]);
});
