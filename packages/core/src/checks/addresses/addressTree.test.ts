import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { cases, runs } from '../../../tests/runs';
import { assignPins } from '../../assign/assignPins';
import { addressesOf } from '../../nets/addresses';
import { findBuses } from '../../nets/buses';
import type { Plan } from '../../plan/plan';
import { clearAddresses } from '../../review/clearAddresses';

const sheets = shippedSheets();
const MUX = 'multiplexer-tca9548a';
const i2c = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => p.bus.kind === 'i2c' && p.id !== MUX);
const line = (sheet: string, role: string) => sheets.parts.get(sheet)!.sheet.terminals.list.find((t) => t.role === role && !t.channel)!.id;

/** A part of a tree: where it hangs, as the multiplexers and channels on its way from the board. */
interface Leaf {
  readonly id: string;
  readonly path: readonly string[];
}

/** Parts and multiplexers, each at the board's bus or on some channel of a multiplexer that came before it. */
const trees = fc
  .array(
    fc.tuple(
      fc.oneof({ weight: 1, arbitrary: fc.constant(MUX) }, { weight: 2, arbitrary: fc.constantFrom(...i2c.map((p) => p.id)) }),
      fc.nat(),
      fc.nat(1),
    ),
    {
      minLength: 2,
      maxLength: 8,
    },
  )
  .map((picks) => {
    const leaves: Leaf[] = [];
    const muxes: Leaf[] = [];
    let plan = stick();
    for (const [at, [sheet, where, channel]] of picks.entries()) {
      const id = `p${at}`;
      const parent = muxes[where % (muxes.length + 1)];
      const to = parent ? [`${parent.id}:SD${channel}`, `${parent.id}:SC${channel}`] : ['GP4', 'GP5'];
      plan = edited(
        plan,
        sheets,
        add(id, sheet),
        wire(`${id}:${line(sheet, 'i2c.sda')}`, to[0]!),
        wire(`${id}:${line(sheet, 'i2c.scl')}`, to[1]!),
      );
      const leaf = { id, path: parent ? [...parent.path, `${parent.id}.${channel}`] : [] };
      leaves.push(leaf);
      if (sheet === MUX) muxes.push(leaf);
    }
    return { plan, leaves };
  });

/** Pairs that answer on one address of one open way: one of the two hangs on the way to the other. */
function meeting(plan: Plan, leaves: readonly Leaf[]): ReadonlySet<string> {
  const claims = ({ id }: Leaf) =>
    addressesOf(
      plan,
      plan.placements.find((p) => p.id === id)!,
      sheets,
    ).map((a) => a.address);
  const onWay = (a: Leaf, b: Leaf) => a.path.every((step, at) => b.path[at] === step);
  return new Set(
    leaves.flatMap((a, at) =>
      leaves
        .slice(at + 1)
        .filter((b) => (onWay(a, b) || onWay(b, a)) && claims(a).some((address) => claims(b).includes(address)))
        .map((b) => `${a.id} ${b.id}`),
    ),
  );
}

/** Pairs that the checks of a plan name. */
function named(plan: Plan, code: string): ReadonlySet<string> {
  const groups = findingsOf(plan, sheets)
    .filter((f) => f.code === code)
    .map((f) => [...(f.place.placements ?? [])].sort((a, b) => Number(a.slice(1)) - Number(b.slice(1))));
  return new Set(groups.flatMap((ids) => ids.flatMap((a, at) => ids.slice(at + 1).map((b) => `${a} ${b}`))));
}

test('in any tree of multiplexers exactly those are told to meet that one open way joins; settled, or cleared where that is possible, none do', () => {
  let met = 0;
  fc.assert(
    fc.property(trees, ({ plan, leaves }) => {
      const [expected, shared, impossible] = [meeting(plan, leaves), named(plan, 'address-shared'), named(plan, 'address-impossible')];
      met += expected.size;
      for (const pair of shared) expect(expected).toContain(pair);
      for (const pair of expected) expect(shared.has(pair) || impossible.has(pair)).toBe(true);

      const isBehind = (id: string) => leaves.some((leaf) => leaf.id === id && leaf.path.length > 0);
      const bothBehind = (pair: string) => pair.split(' ').every(isBehind);
      // What hangs behind a channel stays where it is: settling parts those before it, from each other and from what is behind.
      const settled = assignPins(plan, sheets, { nodes: 2000 })!.plan;
      for (const code of ['address-shared', 'address-impossible'])
        expect([...named(settled, code)].filter((pair) => !bothBehind(pair))).toEqual([]);

      const [bus] = findBuses(plan, sheets);
      const cleared = bus && clearAddresses(plan, sheets, bus);
      if (cleared?.ok) expect([...meeting(edited(plan, sheets, ...cleared.edits), leaves)].filter((pair) => !bothBehind(pair))).toEqual([]);
    }),
    { numRuns: runs(25) },
  );
  expect(met).toBeGreaterThan(cases(4));
}, 60_000);
